/** Whole musters of units with pages as bad as they come. */

import { readdirSync, readFileSync } from 'node:fs'
import { afterEach, expect } from 'vitest'
import { adminSecretName } from '../../src/core/brief/brief'
import { answers } from '../../src/core/muster/roll'
import { musterIsOpen } from '../../src/store/orders'
import { openSecret } from '../../src/store/secrets'
import { sentence } from '../../src/words/en/sentence'
import { type Bench, openBench } from '../support/bench'
import { hearthCard, hearths } from '../support/hearth'
import { longIt as it } from '../support/long'
import { wholeBrief } from '../support/whole-brief'

let bench: Bench
afterEach(() => bench.close())

it('are given their first admin as they ask, are set on their table and in their dialogs, and answer', async () => {
  bench = await openBench({ change: hearths(4, [hearthCard]), pace: 20 })
  bench.startRunner()
  await bench.order()
  const { rows } = await bench.settled()
  const left = [...rows.values()].filter((row) => !answers(row))
  expect(left.flatMap(({ steps, log }) => [JSON.stringify(steps), ...log.map(sentence)])).toEqual([])
  const secret = (name: string) => openSecret(bench.store, bench.jobId, name)
  for (const unit of bench.lab.units()) {
    const { networks, users, country } = unit.effective
    expect({ users, country }).toEqual({ users: ['admin'], country: 'NZ' })
    const own = bench.job.units.find(({ mac }) => mac === unit.identity.mac)?.id ?? ''
    expect(unit.accepts('admin', (await secret(adminSecretName(wholeBrief.admin, own))) ?? '')).toBe(true)
    expect(networks.map(({ name }) => name).sort()).toEqual(wholeBrief.networks.map(({ ssid }) => ssid).sort())
    for (const { id, ssid } of wholeBrief.networks)
      expect(networks.find(({ name }) => name === ssid)?.passphrase).toBe(await secret(`network/${id}/passphrase`))
  }
  expect(bench.lab.air.everOpen).toEqual([])
})

/** Processes of the browsers that this one has started, by way of whatever starts them. */
function browsers(): number[] {
  const parents = new Map<number, number>()
  for (const name of readdirSync('/proc').filter((each) => /^\d+$/.test(each))) {
    parents.set(Number(name), Number(/^PPid:\s+(\d+)/m.exec(readStatus(name))?.[1] ?? 0))
  }
  const isOurs = (pid: number): boolean => {
    for (let at = parents.get(pid); at; at = parents.get(at)) if (at === process.pid) return true
    return false
  }
  return [...parents.keys()].filter((pid) => isOurs(pid) && /^Name:\s+chrom/m.test(readStatus(`${pid}`)))
}

function end(pid: number): void {
  try {
    process.kill(pid, 'SIGKILL')
  } catch {
    // It went with its parent.
  }
}

function readStatus(pid: string): string {
  try {
    return readFileSync(`/proc/${pid}/status`, 'utf8')
  } catch {
    return ''
  }
}

const killedIn = ['sign-in', 'networks', 'radios', 'apply', 'proof'] as const

it('whose browser is killed as a step begins go on with another, and answer', async () => {
  bench = await openBench({ change: hearths(1, [hearthCard]), pace: 40 })
  bench.startRunner()
  await bench.order()
  const killedAt = new Set<string>()
  while (await musterIsOpen(bench.store, bench.jobId)) {
    const begun = (await bench.events()).flatMap(({ event }) =>
      event.kind === 'step' && event.state.kind === 'working' ? [event.step] : [],
    )
    const next = killedIn.find((step) => begun.includes(step) && !killedAt.has(step))
    const running = browsers()
    if (next === undefined || running.length === 0) {
      await new Promise((resolve) => setTimeout(resolve, 20))
      continue
    }
    killedAt.add(next)
    for (const pid of running) end(pid)
  }
  const { rows } = await bench.roll()
  const left = [...rows.values()].filter((row) => !answers(row))
  expect(left.flatMap(({ steps, log }) => [JSON.stringify(steps), ...log.map(sentence)])).toEqual([])
  expect([...killedAt]).toEqual(killedIn)
  expect(bench.lab.air.everOpen).toEqual([])
})
