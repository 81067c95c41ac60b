/** A unit whose changes take effect at once, that must be told to save, and takes one session at a time. */
import { afterEach, expect } from 'vitest'
import type { JobDocument } from '../../src/core/job/job-document'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import { openSecret } from '../../src/store/secrets'
import type { Host } from '../../src/wire/host/host'
import { type Bench, openBench } from '../support/bench'
import { shortIt as it, longIt } from '../support/long'
import { broughtHomeAfter } from '../support/power-cut'
import { wholeBrief } from '../support/whole-brief'

let bench: Bench
afterEach(() => bench.close())

const mac = '02:b7:1c:10:6a:2c'
const yard = (job: JobDocument): void => {
  const [unit] = job.units
  if (unit) job.units = [{ ...unit, model: 'Brackwater B7', mac }]
  job.brief = { ...wholeBrief, networks: wholeBrief.networks.map((each) => ({ ...each, security: 'wpa2-personal' })) }
}
const row = async () => (await bench.roll()).rows.get('hall-01')
const device = () => bench.lab.plugged(mac).unit
const open = async (pace: number): Promise<void> => {
  bench = await openBench({ change: yard, pace })
  bench.startRunner()
  await bench.order()
}

it('is mustered with one session at a time, and was never open on air', async () => {
  await open(300)
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
  expect(device().effective).toMatchObject({ country: 'NZ', wired: { address: '10.44.8.20' }, telnet: false })
  expect(device().changes.saved).toBe(true)
  expect(bench.lab.air.everOpen).toEqual([])
  const cells = device()
    .air()
    .flatMap(({ networks }) => networks.map(({ bssid }) => bssid))
  expect(new Set(cells).size).toBeGreaterThan(0)
  expect((await row())?.cells.map(({ bssid }) => bssid)).toEqual(cells)
  const [network] = device().effective.networks
  expect(network?.passphrase).toBe(await openSecret(bench.store, bench.jobId, `network/${network?.id}/passphrase`))
})

longIt.each<Step>(['networks', 'password', 'return', 'save'])(
  'that loses its power as it comes to %s is brought home, and never open on air',
  async (step) => {
    await open(100)
    await broughtHomeAfter(bench, { mac, unit: 'hall-01', step })
    expect(device().changes.saved).toBe(true)
    expect(bench.lab.air.everOpen).toEqual([])
  },
)

/**
 * A wire on which a unit that was told to move is seen at its old address for some looks more, and takes no connection.
 */
function slowToLeave(own: Host, [old, goal]: readonly [string, string]) {
  let looks = 0
  const calls: string[] = []
  const isLeaving = (): boolean => device().effective.wired.address === goal && looks < 3
  const host: Host = {
    ...own,
    arp: async (address) => {
      if (!isLeaving()) return own.arp(address)
      looks += 1
      return address === old ? [mac] : []
    },
    openLane: async (target) => {
      const lane = await own.openLane(target)
      return {
        ...lane,
        connect: (port) => {
          if (target.address === old && isLeaving()) calls.push(`port ${port}`)
          return lane.connect(port)
        },
      }
    },
  }
  return { host, calls }
}

it('is not called at its old address while it may still leave it: such a call would hang', async () => {
  bench = await openBench({ change: yard, pace: 100 })
  let calls: readonly string[] = []
  bench.startRunner({
    // A sweep may call it: it has no muster that waits for the answer.
    sweepEverySeconds: 1_000_000,
    host: (own) => {
      const slow = slowToLeave(own, ['172.31.9.1', '10.44.8.20'])
      calls = slow.calls
      return slow.host
    },
  })
  await bench.order()
  await bench.settled()
  expect(answers(await row()), JSON.stringify(await row())).toBe(true)
  expect(calls).toEqual([])
})
