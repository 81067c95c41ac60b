// Units that are turned page by page, side by side against one alone, with both engines; and a controller with as many
// units as it takes, against the same with one.
import { readFileSync } from 'node:fs'
import { cpus } from 'node:os'
import { join } from 'node:path'
import { musterInLab } from './measured-muster.mjs'
import { root } from './root.mjs'

// A page in a browser costs as much of the processors at any pace: only as in life does its share mean anything.
const paces = { forms: Number(process.env.AIR_MUSTER_PACE ?? 4), browser: Number(process.env.AIR_MUSTER_PACE ?? 1) }
const controllerPace = Number(process.env.AIR_MUSTER_PACE ?? 4)
const card = readFileSync(join(root, 'data/kit/pellworth-p6.yaml'), 'utf8')
const engines = {
  forms: {
    kind: { model: 'Pellworth P6 plain', shelfModel: 'Pellworth P6', macPrefix: '02:50:36' },
    cards: [
      card
        .replace('model: P6', 'model: P6 plain')
        .replace('engine: browser', 'engine: forms')
        .replace(/^ *scripted:.*\n/m, ''),
    ],
  },
  browser: { kind: { model: 'Pellworth P6', macPrefix: '02:50:36' }, cards: [] },
}
const rack = {
  id: 'rack',
  name: 'rack',
  mac: '02:7a:c1:00:00:01',
  serial: 'C1-1',
  model: 'Tarnhelm C1',
  shelfModel: 'Tarnhelm C1',
}
const managed = { model: 'Tarnhelm T2', macPrefix: '02:7a:02' }

process.stdout.write(`${cpus().length} cores, one run each\n`)
// How many at once, and what that may cost: the browser is the one that costs this machine something.
const many = { forms: { count: 4, most: '1.10' }, browser: { count: 12, most: '1.15' } }
// One part alone, where somebody says which: each takes minutes.
const { AIR_MUSTER_FAMILY: only } = process.env
for (const [engine, how] of Object.entries(engines)) {
  if (only !== undefined && only !== engine) continue
  const pace = paces[engine]
  const { count, most } = many[engine]
  const one = await musterInLab({ count: 1, pace, ...how })
  const all = await musterInLab({ count, pace, ...how })
  process.stdout.write(
    `pages by ${engine.padEnd(12)} lab at pace ${pace}: one ${one.seconds.toFixed(2)} s, ${count} ` +
      `${all.seconds.toFixed(2)} s, ${count} to one ${(all.seconds / one.seconds).toFixed(3)} (wanted: at most ` +
      `${most})\n`,
  )
}
if (only === undefined || only === 'controller') {
  const alone = await musterInLab({ count: 1, pace: controllerPace, kind: managed, beside: [rack] })
  const full = await musterInLab({ count: 32, pace: controllerPace, kind: managed, beside: [rack] })
  process.stdout.write(
    `a controller          lab at pace ${controllerPace}: with one ${alone.seconds.toFixed(2)} s, with 32 ` +
      `${full.seconds.toFixed(2)} s, 32 to one ${(full.seconds / alone.seconds).toFixed(3)} (wanted: at most ` +
      `1.15)\n`,
  )
}
