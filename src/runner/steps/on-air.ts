/** On air: each network on its band and channel, encrypted. A radar channel listens first: say so, and wait. */
import type { RadioConfig } from '../../core/config/unit-config'
import type { RadioOnAir } from '../../wire/dialect/dialect'
import { held } from '../explain'
import type { UnitRun } from '../unit-run'

/** Seconds that a radio may take beyond its listening. */
const patience = 90

export async function onAir(run: UnitRun): Promise<string> {
  let listened = false
  let deadline = run.deadline(patience)
  for (;;) {
    const radios = await run.dialect.air()
    const open = radios.flatMap((radio) => radio.networks).find((network) => network.security === 'open')
    if (open)
      throw held(`Network "${open.ssid}" is on air without security.`, [
        'Take its cable out now.',
        'Check the brief, then muster it again.',
      ])
    const listening = radios.filter((radio) => radio.condition === 'listening')
    const longest = Math.max(0, ...listening.map((radio) => radio.listensFor))
    const faults = run.compiled.config.radios.flatMap((wanted) =>
      airFaults(
        run,
        wanted,
        radios.find((radio) => radio.band === wanted.band),
      ),
    )
    if (faults.length === 0) return listened ? 'on air, no radar heard' : 'on air'
    if (listening.length > 0 && !listened) {
      listened = true
      deadline = run.deadline(longest + patience)
      await run.tell('on-air', { is: 'waiting', until: run.due(longest), waitingFor: 'listening for radar' })
    }
    if (deadline.hasPassed())
      throw held(
        'A radio is not on air as planned.',
        ['Read below what differs.', 'If it heard radar, plan another channel; else muster it again.'],
        faults.join(' '),
      )
    await run.pause(2)
  }
}

function airFaults(run: UnitRun, wanted: RadioConfig, seen: RadioOnAir | undefined): string[] {
  if (seen?.condition !== 'on-air') return [`The ${wanted.band} GHz radio is ${seen?.condition ?? 'missing'}.`]
  const faults: string[] = []
  if (seen.channel !== wanted.channel || seen.width !== wanted.width)
    faults.push(
      `The ${wanted.band} GHz radio is on channel ${seen.channel} at ${seen.width} MHz, planned is ${wanted.channel} at ${wanted.width} MHz.`,
    )
  for (const network of run.compiled.config.networks.filter(
    (each) => each.enabled && each.bands.includes(wanted.band),
  )) {
    const found = seen.networks.find((each) => each.ssid === network.ssid)
    if (found?.security !== network.security.mode)
      faults.push(
        `"${network.ssid}" is ${found ? `secured by ${found.security}` : 'not on air'} at ${wanted.band} GHz.`,
      )
  }
  return faults
}
