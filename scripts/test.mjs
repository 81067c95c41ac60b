// npm test: installs what is missing, builds, checks the code, runs every test. Words after -- go to the test runner.
import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'
import { root } from './lib/root.mjs'

ensureDebian('mariadb', 'chromium', 'yanglint', 'yangModules', 'netconfd', 'kea', 'dnsmasq', 'openssl')
ensureNodeModules()
await import('./build.mjs')

const bin = (name) => join(root, 'node_modules/.bin', name)
const run = (command, args) => {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit' })
  if (status !== 0) process.exit(status ?? 1)
}
const chosen = process.argv.slice(2)
if (chosen.length === 0) {
  run(bin('biome'), ['ci', '.'])
  run(bin('tsc'), ['--noEmit'])
  run(bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'src'])
  run(bin('knip'), [])
}
run(bin('vitest'), ['run', ...chosen])
