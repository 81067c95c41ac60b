// npm test: installs what is missing, builds, checks the code, runs every test. Words after -- go to the test runner.
//   --quick   leaves out what takes long: browsers, whole musters, hostile messages, machines that nobody here wrote
//             (npm run test:quick)
//   --long    endurance alone: every moment at which something may end, many more tries, machines in full, as many
//             simulated musters as are wanted (npm run test:long)
import { spawn } from 'node:child_process'
import { constants, setPriority } from 'node:os'
import { join } from 'node:path'
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'
import { root } from './lib/root.mjs'

const words = process.argv.slice(2)
const quick = words.includes('--quick')
const endurance = words.includes('--long')
const chosen = words.filter((word) => word !== '--quick' && word !== '--long')
const helper = ['tcpdump', 'socat', 'iproute2', 'ping', 'setpriv']
const slow = quick ? [] : ['chromium', 'cups', 'ncclient', 'netconfd', 'qemu', 'snmpd', 'snmpget', 'tshark', 'uml']
const peers = endurance ? ['deluge', 'django', 'transmission', 'wordpress'] : []
await Promise.all([
  ensureDebian(
    'mariadb',
    'age',
    'yanglint',
    'yangModules',
    'kea',
    'dnsmasq',
    'lldpd',
    'openssl',
    ...helper,
    ...slow,
    ...peers,
  ),
  ensureNodeModules(),
])
const bin = (name) => join(root, 'node_modules/.bin', name)
/** Runs the tests that are named; nothing comes after tests that fail. */
async function test(...names) {
  const child = spawn(bin('vitest'), ['run', ...names], { cwd: root, stdio: 'inherit' })
  const status = await new Promise((resolve) => child.once('close', resolve))
  if (status !== 0) process.exit(status ?? 1)
}
/** The compiler is written in Go: with more memory before it collects garbage, it takes half of the processor time. */
const thrifty = { ...process.env, GOGC: '400' }
/**
 * Runs a command in what others leave of the processors. What it prints is printed in one piece, when it has ended.
 * @returns whether it was content
 */
async function aside(command, ...args) {
  const child = spawn(command, args, { cwd: root, env: thrifty, stdio: ['ignore', 'pipe', 'pipe'] })
  setPriority(child.pid, constants.priority.PRIORITY_LOW)
  const end = () => child.kill()
  process.once('exit', end)
  let text = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk) => {
      text += chunk
    })
  const status = await new Promise((resolve) => child.once('close', resolve))
  process.off('exit', end)
  process.stdout.write(text)
  return status === 0
}
const node = (...args) => aside(process.execPath, ...args)
const build = () => node(join(root, 'scripts/build.mjs'))
/** Everything that is said of the code without running it, and the build. @returns whether all of it is well */
async function checkAndBuild() {
  const read = [
    node(bin('biome'), 'ci', '.'),
    node(bin('depcruise'), '--config', '.dependency-cruiser.cjs', 'src'),
    node(bin('knip')),
    node(join(root, 'scripts/check-words.mjs')),
  ]
  // Next writes the types of its pages as it builds. The native compiler is named by its place: the one that Next wants
  // beside it has the same command. With several checkers, each works out anew what they have in common.
  const typed =
    (await build()) && (await node(join(root, 'node_modules/typescript-7/bin/tsc'), '--noEmit', '--checkers', '1'))
  return (await Promise.all(read)).every(Boolean) && typed
}
if (endurance) process.env.AIR_MUSTER_TESTS = 'long'
const long = [
  'tests/e2e/**',
  'tests/run/**',
  'tests/real/**',
  'tests/simulation/**',
  'tests/wire/hosts.test.ts',
  'tests/wire/pages.test.ts',
  '**/hostile.test.ts',
]
// A virtual machine beside what waits for others would make all of it late (tried: units did not say who they are in
// time). Simulations, checks and the build wait for nobody: they take what it leaves of the processors.
const machines = 'tests/real/access-points.test.ts'
const simulations = 'tests/simulation/simulation.test.ts'
const without = (paths) => paths.flatMap((path) => ['--exclude', path])
const require = async (...asked) => {
  if ((await Promise.all(asked)).includes(false)) process.exit(1)
}
if (chosen.length > 0) {
  await require(build())
  await test(...(quick ? without(long) : []), ...chosen)
} else if (quick) {
  await require(checkAndBuild())
  await test(...without(long))
} else {
  // The machines start an installation, which bundles what is stale: two would write the same files at once.
  await (await import('./lib/bundle.mjs')).bundleIfStale()
  const meanwhile = [
    endurance ? build() : checkAndBuild(),
    aside(bin('vitest'), 'run', '--config', 'tests/simulation/vitest.config.ts'),
  ]
  await test(machines)
  await require(...meanwhile)
  await test(...without([machines, simulations]))
}
