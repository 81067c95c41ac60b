// npm test: installs what is missing, builds, checks the code, runs every test. Words after -- go to the test runner.
//   --quick   leaves out what takes long: browsers, whole musters, hostile messages, machines that nobody here wrote
//             (npm run test:quick)
//   --long    endurance alone: every moment at which something may end, many more tries, machines in full, as many
//             simulated musters as are wanted (npm run test:long)
import { execFile, spawn } from 'node:child_process'
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
await Promise.all([
  ensureDebian('mariadb', 'age', 'yanglint', 'yangModules', 'kea', 'dnsmasq', 'lldpd', 'openssl', ...helper, ...slow),
  ensureNodeModules(),
])
const bin = (name) => join(root, 'node_modules/.bin', name)
/** Runs the tests that are named; nothing comes after tests that fail. */
async function test(...names) {
  const child = spawn(bin('vitest'), ['run', ...names], { cwd: root, stdio: 'inherit' })
  const status = await new Promise((resolve) => child.once('close', resolve))
  if (status !== 0) process.exit(status ?? 1)
}
/** Side by side, each with its words in one piece. @returns whether all of them are content */
async function allContent(checks) {
  const ran = await Promise.all(
    checks.map(
      ([file, ...words]) =>
        new Promise((resolve) =>
          execFile(process.execPath, [file, ...words], { cwd: root, maxBuffer: 2 ** 26 }, (fault, out, err) =>
            resolve({ fault, out, err }),
          ),
        ),
    ),
  )
  for (const { out, err } of ran) process.stdout.write(`${out}${err}`)
  return ran.every(({ fault }) => fault === null)
}
/** Tests in what others leave of the processors; what they print is printed in one piece, when they are waited for. */
function testInTheBackground(...names) {
  const child = spawn(bin('vitest'), ['run', ...names], { cwd: root, stdio: ['ignore', 'pipe', 'pipe'] })
  setPriority(child.pid, constants.priority.PRIORITY_LOW)
  process.once('exit', () => child.kill())
  let text = ''
  for (const stream of [child.stdout, child.stderr])
    stream.on('data', (chunk) => {
      text += chunk
    })
  const over = new Promise((resolve) => child.once('close', resolve))
  return async () => {
    const status = await over
    process.stdout.write(text)
    if (status !== 0) process.exit(status ?? 1)
  }
}
if (endurance) process.env.AIR_MUSTER_TESTS = 'long'
if (chosen.length === 0 && !endurance) {
  const read = allContent([
    [bin('biome'), 'ci', '.'],
    [bin('depcruise'), '--config', '.dependency-cruiser.cjs', 'src'],
    [bin('knip')],
  ])
  await import('./build.mjs')
  // Next writes the types of its pages as it builds.
  // The native compiler, by its place: the one that Next wants beside it has the same command.
  const typed = await allContent([[join(root, 'node_modules/typescript-7/bin/tsc'), '--noEmit']])
  if (!(await read) || !typed) process.exit(1)
} else await import('./build.mjs')
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
// time). Simulations wait for nothing and nothing waits for them: they take what it leaves of the processors.
const machines = 'tests/real/access-points.test.ts'
const simulations = 'tests/simulation/simulation.test.ts'
const without = (paths) => paths.flatMap((path) => ['--exclude', path])
if (quick) await test(...without(long), ...chosen)
else if (chosen.length > 0) await test(...chosen)
else {
  await test(...without([machines, simulations]))
  const simulated = testInTheBackground(simulations)
  await test(machines)
  await simulated()
}
