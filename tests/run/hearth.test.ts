/** Whole musters of units with pages as bad as they come. */
import { afterEach, expect } from 'vitest'
import { adminSecretName } from '../../src/core/brief/brief'
import { answers } from '../../src/core/muster/roll'
import { openSecret } from '../../src/store/secrets'
import { type Bench, openBench } from '../support/bench'
import { hearthCard, hearths } from '../support/hearth'
import { longIt as it } from '../support/long'
import { wholeBrief } from '../support/whole-brief'

let bench: Bench
afterEach(() => bench.close())

it('are given an admin as they ask for their first, are set on their table and in their dialogs, and answer', async () => {
  bench = await openBench({ change: hearths(4, [hearthCard]), pace: 20 })
  bench.startRunner()
  await bench.order()
  const { rows } = await bench.settled()
  const left = [...rows.values()].filter((row) => !answers(row))
  expect(left.flatMap(({ steps, log }) => [JSON.stringify(steps), ...log.map(({ text }) => text)])).toEqual([])
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
