/** The web client of deluge: a password alone, lists and dialogs drawn by script without an address of their own. */
import type { Peer } from './peer-bench'

/** It has no user, and this password out of its box. */
export const delugeLogin = { user: '', password: 'deluge' }

export const deluge: Peer = {
  port: 8112,
  script: (folder) => `exec /usr/bin/deluge-web -d -c ${folder} -i 0.0.0.0 -p 8112 >${folder}/log 2>&1`,
}
