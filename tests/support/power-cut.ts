/** A unit loses its power in the middle of a muster, and is brought home. */
import { expect } from 'vitest'
import type { Step } from '../../src/core/muster/procedure'
import { answers } from '../../src/core/muster/roll'
import type { Bench } from './bench'

export interface PowerCut {
  /** Of the unit that loses its power. */
  readonly mac: string
  /** Unit on the kit list that comes to the step, and is to answer. */
  readonly unit: string
  readonly step: Step
  /** Musters afterwards that may be needed until it answers. */
  readonly again?: number
}

/** Cuts as the step begins, waits for the muster to end, and musters again where it has to be. */
export async function broughtHomeAfter(bench: Bench, { mac, unit, step, again = 1 }: PowerCut): Promise<void> {
  const row = async () => (await bench.roll()).rows.get(unit)
  await expect
    .poll(
      async () =>
        (await bench.events()).some(
          ({ event }) =>
            event.kind === 'step' && event.unit === unit && event.step === step && event.state.kind !== 'idle',
        ),
      { interval: 2 },
    )
    .toBe(true)
  bench.lab.unplug(mac)
  bench.lab.plugIn(mac)
  await bench.settled()
  for (let time = 0; time < again && !answers(await row()); time += 1) {
    await bench.order()
    await bench.settled()
  }
  const home = await row()
  expect(answers(home), JSON.stringify(home)).toBe(true)
}
