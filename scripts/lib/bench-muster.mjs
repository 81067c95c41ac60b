// How long four units take side by side, against one alone. Ratios from one run; times by the events.
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { cpus, tmpdir } from 'node:os'
import { join } from 'node:path'
import { root } from './root.mjs'

const { bundleIfStale } = await import('./bundle.mjs')
await bundleIfStale()
const { musterCommand } = await import('./demo-job.mjs')
const { startStack } = await import('./stack.mjs')
const { createConnection } = await import('mysql2/promise')

const rounds = 3
const pace = 60

/** One muster of boxed units in a stack of its own; seconds from its first event to its last. */
async function musterSeconds(units) {
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-bench-'))
  const job = join(folder, 'job.yaml')
  // No radar channel: every unit has the same way to go.
  writeFileSync(job, readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8').replace(', locks: { "5": 60 }', ''))
  const stack = await startStack({ folder, pace, web: false })
  try {
    await musterCommand(stack.env, ['load', job], 'back')
    await musterCommand(stack.env, ['sweep', 'port-ellery'], 'back')
    await new Promise((resolve) => setTimeout(resolve, 3000))
    const { text } = await musterCommand(stack.env, ['run', 'port-ellery', '--wait', '--units', ...units], 'back')
    const connection = await createConnection({ uri: stack.databaseUrl.replace('mariadb:', 'mysql:'), timezone: 'Z' })
    const [rows] = await connection.query(
      `select at, event from events where event like '{"kind":"muster"%' order by seq`,
    )
    const [answering] = await connection.query(
      `select count(*) as count from events where event like '%"step":"proof","state":{"is":"done"%'`,
    )
    await connection.end()
    if (answering[0].count !== units.length) throw new Error(`not every unit answered:\n${text}`)
    return (rows.at(-1).at - rows[0].at) / 1000
  } finally {
    await stack.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

const median = (values) => values.toSorted((a, b) => a - b)[Math.floor(values.length / 2)]
const one = []
const four = []
for (let round = 0; round < rounds; round += 1) {
  one.push(await musterSeconds(['hall-01']))
  four.push(await musterSeconds(['hall-01', 'hall-02', 'hall-03', 'booth-01']))
}
const print = (name, values) =>
  process.stdout.write(
    `${name.padEnd(22)} ${values.map((value) => value.toFixed(2)).join('  ')}   median ${median(values).toFixed(2)} s\n`,
  )
process.stdout.write(`${cpus().length} cores, lab at pace ${pace}, ${rounds} rounds in turn\n`)
print('one unit alone', one)
print('four side by side', four)
process.stdout.write(`ratio of the medians   ${(median(four) / median(one)).toFixed(3)} (wanted: at most 1.15)\n`)
