// How long many units take side by side, against one alone; and against another checkout, in turn. Ratios from one run;
// times by the events. Another checkout, built: AIR_MUSTER_AGAINST=/its/folder npm run bench -- muster;
// AIR_MUSTER_PACE=15 for a wire that is nearer to life, where the processors weigh less.
import { cpus } from 'node:os'
import { musterInLab } from './measured-muster.mjs'
import { median } from './median.mjs'

const rounds = 3
const pace = Number(process.env.AIR_MUSTER_PACE ?? 60)
const against = process.env.AIR_MUSTER_AGAINST
const musterSeconds = async (count, checkout) => (await musterInLab({ count, pace, checkout })).seconds

const runs = { one: [], four: [], 'twenty-four': [], 'twenty-four, before': [] }
for (let round = 0; round < rounds; round += 1) {
  runs.one.push(await musterSeconds(1))
  runs.four.push(await musterSeconds(4))
  runs['twenty-four'].push(await musterSeconds(24))
  if (against) runs['twenty-four, before'].push(await musterSeconds(24, against))
}
process.stdout.write(`${cpus().length} cores, lab at pace ${pace}, ${rounds} rounds in turn\n`)
for (const [name, values] of Object.entries(runs).filter(([, each]) => each.length > 0))
  process.stdout.write(
    `${name.padEnd(22)} ${values.map((value) => value.toFixed(2)).join('  ')}   median ` +
      `${median(values).toFixed(2)} s\n`,
  )
const ratio = (a, b) => (median(runs[a]) / median(runs[b])).toFixed(3)
process.stdout.write(`four to one            ${ratio('four', 'one')} (wanted: at most 1.15)\n`)
process.stdout.write(`twenty-four to one     ${ratio('twenty-four', 'one')}\n`)
if (against)
  process.stdout.write(`now to before, 24      ${ratio('twenty-four', 'twenty-four, before')} (wanted: at most 1)\n`)
