// How long many units take side by side, against one alone; and against another checkout, in turn. Ratios from one run;
// times by the events. Another checkout, built: AIR_MUSTER_AGAINST=/its/folder npm run bench -- muster; AIR_MUSTER_PACE=15
// for a wire that is nearer to life, where the processors weigh less.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { parse, stringify } from 'yaml'
import { median } from './median.mjs'
import { root } from './root.mjs'

const { bundleIfStale } = await import('./bundle.mjs')
await bundleIfStale()
const { createConnection } = await import('mysql2/promise')

const rounds = 3
const pace = Number(process.env.AIR_MUSTER_PACE ?? 60)
const model = 'Ostrel O-40'
const against = process.env.AIR_MUSTER_AGAINST

/** Units of one model, at one factory address, without a radar channel: each has the same way to go. */
const boxes = (count) =>
  Array.from({ length: count }, (_, index) => {
    const number = String(index + 1).padStart(2, '0')
    return { id: `unit-${number}`, name: `unit-${number}`, mac: `02:4f:52:00:00:${number}`, serial: `S-${number}` }
  })

/** One muster of boxed units in a stack of its own; seconds from its first event to its last. */
async function musterSeconds(count, checkout = root) {
  const { startStack } = await import(join(checkout, 'scripts/lib/stack.mjs'))
  const { musterCommand } = await import(join(checkout, 'scripts/lib/demo-job.mjs'))
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-bench-'))
  const [job, shelf] = [join(folder, 'job.yaml'), join(folder, 'shelf.yaml')]
  const demo = parse(readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8'))
  const units = boxes(count).map((box, index) => ({ ...box, place: 'bench', model, port: index + 1 }))
  writeFileSync(job, stringify({ ...demo, units }))
  writeFileSync(shelf, stringify({ shelf: boxes(count).map(({ mac, serial }) => ({ model, mac, serial })) }))
  const stack = await startStack({ folder, pace, web: false, shelf })
  try {
    await musterCommand(stack.env, ['load', job], 'back')
    await musterCommand(stack.env, ['sweep', 'port-ellery'], 'back')
    await new Promise((resolve) => setTimeout(resolve, 3000))
    const { text } = await musterCommand(stack.env, ['run', 'port-ellery', '--wait'], 'back')
    const connection = await createConnection({ uri: stack.databaseUrl.replace('mariadb:', 'mysql:'), timezone: 'Z' })
    const [rows] = await connection.query(
      `select at, event from events where event like '{"kind":"muster"%' order by seq`,
    )
    const [answering] = await connection.query(
      `select count(*) as count from events where event like '%"step":"proof","state":{"%":"done"%'`,
    )
    await connection.end()
    if (answering[0].count !== count) throw new Error(`not every unit answered:\n${text}`)
    return (rows.at(-1).at - rows[0].at) / 1000
  } finally {
    await stack.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

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
    `${name.padEnd(22)} ${values.map((value) => value.toFixed(2)).join('  ')}   median ${median(values).toFixed(2)} s\n`,
  )
const ratio = (a, b) => (median(runs[a]) / median(runs[b])).toFixed(3)
process.stdout.write(`four to one            ${ratio('four', 'one')} (wanted: at most 1.15)\n`)
process.stdout.write(`twenty-four to one     ${ratio('twenty-four', 'one')}\n`)
if (against)
  process.stdout.write(`now to before, 24      ${ratio('twenty-four', 'twenty-four, before')} (wanted: at most 1)\n`)
