// Many hosts with Debian's sshd at one address, side by side, against one alone: in network namespaces, as root.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { bundleIfStale } from './bundle.mjs'
import { bundleSource } from './bundle-source.mjs'
import { root } from './root.mjs'

await bundleIfStale()
const outfile = join(root, 'dist/bench-hosts.mjs')
await bundleSource(outfile, 'tests/bench/namespaces-bench')
const { status } = spawnSync(process.execPath, [outfile], {
  cwd: root,
  stdio: 'inherit',
  env: { ...process.env, AIR_MUSTER_ROOT: root },
})
if (status !== 0) process.exitCode = 1
