// npm test: installs what is missing, builds, checks the code, runs every test. Words after -- go to the test runner.
//   --quick   leaves out what takes long: browsers, whole musters, ten thousand hostile messages, machines that nobody here
//             wrote (npm run test:quick)
import { spawn, spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'
import { root } from './lib/root.mjs'

const words = process.argv.slice(2)
const quick = words.includes('--quick')
const chosen = words.filter((word) => word !== '--quick')
const helper = ['tcpdump', 'socat', 'iproute2', 'ping', 'setpriv']
const slow = quick ? [] : ['chromium', 'cups', 'ncclient', 'netconfd', 'qemu', 'snmpd', 'tshark']
await Promise.all([
  ensureDebian('mariadb', 'yanglint', 'yangModules', 'kea', 'dnsmasq', 'lldpd', 'openssl', ...helper, ...slow),
  ensureNodeModules(),
])
await import('./build.mjs')

const bin = (name) => join(root, 'node_modules/.bin', name)
const run = (command, args) => {
  const { status } = spawnSync(command, args, { cwd: root, stdio: 'inherit' })
  if (status !== 0) process.exit(status ?? 1)
}
if (chosen.length === 0) {
  run(bin('biome'), ['ci', '.'])
  run(bin('tsc'), ['--noEmit'])
  run(bin('depcruise'), ['--config', '.dependency-cruiser.cjs', 'src'])
  run(bin('knip'), [])
}
const long = [
  'tests/e2e/**',
  'tests/run/**',
  'tests/real/**',
  'tests/wire/hosts.test.ts',
  'tests/wire/pages.test.ts',
  '**/hostile.test.ts',
]
const machines = 'tests/real/access-points.test.ts'
// Virtual machines beside whole musters would make all of it late. They keep one of two processors busy, so beside them
// run the tests that wait for nobody.
const beside = ['src', 'tests/store', 'tests/cli']
const without = (paths) => paths.flatMap((path) => ['--exclude', path])

/** A run of the tests while another one is under way: what it says is told as one piece, when it has ended. */
const later = (args) =>
  new Promise((resolve) => {
    const child = spawn(bin('vitest'), args, { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
    const said = []
    for (const stream of [child.stdout, child.stderr]) stream.on('data', (part) => said.push(part))
    child.on('close', (status) => resolve({ status: status ?? 1, said: Buffer.concat(said) }))
  })

if (quick) run(bin('vitest'), ['run', ...without(long), ...chosen])
else if (chosen.length > 0) run(bin('vitest'), ['run', ...chosen])
else {
  run(bin('vitest'), ['run', ...without([machines, ...beside.map((path) => `${path}/**`)])])
  const both = await Promise.all([
    later(['run', machines]),
    later(['run', '--maxWorkers', '1', ...without(['tests/{bench,e2e,real,run,wire}/**'])]),
  ])
  for (const { said } of both) process.stdout.write(said)
  const bad = both.find(({ status }) => status !== 0)
  if (bad) process.exit(bad.status)
}
