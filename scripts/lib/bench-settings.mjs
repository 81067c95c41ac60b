// How fast the table of settings and the roll are, in a process and a database of their own.
import { spawnSync } from 'node:child_process'
import { mkdtempSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { bundleSource } from './bundle-source.mjs'
import { startMariadb } from './mariadb.mjs'
import { root } from './root.mjs'

const outfile = join(root, 'dist/bench-settings.mjs')
await bundleSource(outfile, 'tests/bench/settings-bench')
const folder = mkdtempSync(join(tmpdir(), 'air-muster-bench-'))
const server = await startMariadb(join(folder, 'mariadb'))
try {
  const { status } = spawnSync(process.execPath, ['--expose-gc', outfile], {
    cwd: root,
    stdio: 'inherit',
    env: {
      ...process.env,
      AIR_MUSTER_ROOT: root,
      AIR_MUSTER_DB: server.urlOf('air_muster'),
      AIR_MUSTER_VAULT_FILE: join(folder, 'vault.key'),
    },
  })
  if (status !== 0) process.exitCode = 1
} finally {
  await server.stop()
  rmSync(folder, { recursive: true, force: true })
}
