// npm run bench [-- plan | sheet | settings | muster | hundred | families | hosts | sweep | window | faults]: how good
// and fast plans are; how the kit list follows the hand; how fast settings and the roll are; how long many units take
// side by side against one; how fast a subnet is swept; how soon a window shows what was pressed; whether a muster
// survives twenty kills.
import { ensureDebian, ensureNodeModules } from './lib/packages.mjs'

const chosen = process.argv.slice(2)
if (
  chosen.some(
    (name) =>
      !['plan', 'sheet', 'settings', 'muster', 'hundred', 'families', 'hosts', 'sweep', 'window', 'faults'].includes(
        name,
      ),
  )
) {
  process.stderr.write(
    'npm run bench takes plan, sheet, settings, muster, hundred, families, hosts, sweep, window, faults, or ' +
      'nothing for all.\n',
  )
  process.exit(2)
}
const wants = (name) => chosen.length === 0 || chosen.includes(name)
await ensureNodeModules()
if (wants('plan')) await (await import('./lib/bench-plan.mjs')).benchPlan()
if (wants('sheet')) {
  await ensureDebian('mariadb', 'chromium')
  await import('./lib/bench-sheet.mjs')
}
if (wants('settings')) {
  await ensureDebian('mariadb')
  await import('./lib/bench-settings.mjs')
}
if (wants('muster')) {
  await ensureDebian('mariadb')
  await import('./lib/bench-muster.mjs')
}
if (wants('hundred')) {
  await ensureDebian('mariadb')
  await import('./lib/bench-hundred.mjs')
}
if (wants('families')) {
  await ensureDebian('mariadb', 'chromium')
  await import('./lib/bench-families.mjs')
}
if (wants('hosts')) {
  await ensureDebian('mariadb', 'tcpdump', 'socat', 'iproute2', 'ping', 'setpriv', 'openssl')
  await import('./lib/bench-hosts.mjs')
}
if (wants('sweep')) await import('./lib/bench-sweep.mjs')
if (wants('window')) {
  await ensureDebian('mariadb', 'chromium')
  await import('./lib/bench-window.mjs')
}
if (wants('faults')) {
  await ensureDebian('mariadb', 'chromium')
  await import('./lib/bench-faults.mjs')
}
