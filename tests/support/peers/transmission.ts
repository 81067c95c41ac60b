/**
 * The web client of transmission: drawn by script at one address, dialogs with tabs, HTTP Basic, no button that saves.
 */
import type { Peer } from './peer-bench'

export const transmissionLogin = { user: 'keeper', password: 'boxed pages' }

export const transmission: Peer = {
  port: 9091,
  script: (folder) => {
    const { user, password } = transmissionLogin
    const alone = '-O --no-dht --no-lpd --no-portmap'
    const words = `-f -g ${folder} -w ${folder} -a '*.*.*.*' -t -u ${user} -v '${password}' ${alone}`
    return `exec transmission-daemon ${words} 2>${folder}/log`
  },
}
