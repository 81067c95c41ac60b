// A muster in the lab, measured: whole stacks of their own, nothing else beside them.
import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { parse, stringify } from 'yaml'
import { root } from './root.mjs'

const { bundleIfStale } = await import('./bundle.mjs')
await bundleIfStale()
const { createConnection } = await import('mysql2/promise')

const accessPoint = { model: 'Ostrel O-40', macPrefix: '02:4f:52' }

/** Units of one model, at one factory address, without a radar channel: each has the same way to go. */
const boxes = (count, { model, macPrefix, shelfModel = model }) =>
  Array.from({ length: count }, (_, index) => {
    const number = String(index + 1).padStart(2, '0')
    const mac = `${macPrefix}:00:00:${(index + 1).toString(16).padStart(2, '0')}`
    return { id: `unit-${number}`, name: `unit-${number}`, mac, serial: `S-${number}`, model, shelfModel }
  })

/**
 * One muster of boxed units in a stack of its own.
 *
 * @param {{ count: number, pace: number, checkout?: string, kind?: { model: string, macPrefix: string, shelfModel?:
 *   string },
 *   beside?: { id: string, name: string, mac: string, serial: string, model: string, shelfModel: string }[], cards?:
 *   string[] }} options `beside` are further units, such as a controller; `cards` are kit cards of the job's own
 *
 * @returns seconds from its first event to its last; the runner's processor time, seconds, and its peak of memory, MB
 */
export async function musterInLab({ count, pace, checkout = root, kind = accessPoint, beside = [], cards = [] }) {
  const { startStack } = await import(join(checkout, 'scripts/lib/stack.mjs'))
  const { musterCommand } = await import(join(checkout, 'scripts/lib/demo-job.mjs'))
  const folder = mkdtempSync(join(tmpdir(), 'air-muster-bench-'))
  const [job, shelf] = [join(folder, 'job.yaml'), join(folder, 'shelf.yaml')]
  const demo = parse(readFileSync(join(root, 'data/demo/port-ellery.yaml'), 'utf8'))
  // An older checkout knows the environment by another name.
  if (checkout !== root) demo.brief.radio.place = demo.brief.radio.environment
  const all = [...boxes(count, kind), ...beside]
  const units = all.map(({ shelfModel: _lies, ...box }, index) => ({ ...box, place: 'bench', port: index + 1 }))
  writeFileSync(job, stringify({ ...demo, units, ...(cards.length === 0 ? {} : { cards }) }))
  const shelved = all.map(({ mac, serial, shelfModel }) => ({ model: shelfModel, mac, serial }))
  const dhcp = beside.length === 0 ? {} : { dhcp: parse(readFileSync(join(root, 'data/demo/shelf.yaml'), 'utf8')).dhcp }
  writeFileSync(shelf, stringify({ shelf: shelved, ...dhcp }))
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
    if (answering[0].count !== count + beside.length) throw new Error(`not every unit answered:\n${text}`)
    return { seconds: (rows.at(-1).at - rows[0].at) / 1000, ...usedBy(stack.child?.('runner')?.pid) }
  } finally {
    await stack.stop()
    rmSync(folder, { recursive: true, force: true })
  }
}

const ticksASecond = Number(execFileSync('getconf', ['CLK_TCK'], { encoding: 'utf8' }))

/** What a process has used since its start, by proc(5). @param {number | undefined} pid */
function usedBy(pid) {
  // An older checkout does not tell its parts.
  if (pid === undefined) return {}
  const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ')
  const [user, system] = [Number(fields[11]), Number(fields[12])]
  const peak = /^VmHWM:\s+(\d+) kB$/m.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))
  return { runnerSeconds: (user + system) / ticksASecond, runnerPeakMb: Number(peak?.[1]) / 1024 }
}
