// npm run bench [-- plan | muster]: how good and fast plans are; how long four units take side by side against one.
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'

const chosen = process.argv.slice(2)
if (chosen.some((name) => !['plan', 'muster'].includes(name))) {
  process.stderr.write('npm run bench takes plan, muster, or nothing for both.\n')
  process.exit(2)
}
const wants = (name) => chosen.length === 0 || chosen.includes(name)
ensureNodeModules()
if (wants('plan')) await (await import('./lib/bench-plan.mjs')).benchPlan()
if (wants('muster')) {
  ensureDebian('mariadb')
  await import('./lib/bench-muster.mjs')
}
