/** On air: each network on its band and channel, encrypted. A radar channel listens first: say so, and wait. */

import type { Clear, Config } from '../../core/config/unit-config'
import { type Message, message } from '../../core/message/message'
import { type RadarMove, shutUntil } from '../../core/muster/radar-move'
import type { RadioOnAir } from '../../wire/dialect/dialect'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'

/** Seconds that a radio may take beyond its listening. */
const patience = 90

export async function onAir(run: UnitRun): Promise<Message> {
  const { target, access, journal, waits } = run
  const { config } = target.compiled
  let listened = false
  let moves: RadarMove[] = []
  let deadline = waits.deadline(patience)
  let faults: Message[] = []
  const good = await waits.until(
    async () => {
      const radios = await access.dialect.air()
      const open = unmeantOpen(config, radios)
      if (open) throw held('open-network', { ssid: open.ssid })
      moves = radarMoves(config, radios)
      run.onAir = radios
      const listening = radios.filter((radio) => radio.condition === 'listening')
      // A unit that does not say for how long listens as long as its channel demands.
      const planned = (band: string): number =>
        target.plan.radios.find((each) => each.band === band)?.listenSeconds ?? 0
      const longest = Math.max(0, ...listening.map(({ listensFor, band }) => listensFor || planned(band)))
      faults = Object.entries(config.radios).flatMap(([band, desired]) =>
        airFaults(
          config,
          band,
          desired,
          radios.find((radio) => radio.band === band),
        ),
      )
      if (faults.length === 0) return true
      if (listening.length > 0 && !listened) {
        listened = true
        deadline = waits.deadline(longest + patience)
        await journal.tell('on-air', {
          kind: 'waiting',
          until: waits.due(longest),
          waitingFor: message('listening-for-radar'),
        })
      }
      return undefined
    },
    () => deadline,
  )
  if (!good) throw held('not-on-air', { faults })
  run.radarMoves = moves
  for (const move of moves) await told(run, move)
  const [move] = moves
  if (move) return message('on-air-after-radar', { band: move.band, from: move.from, to: move.to })
  return listened ? message('on-air-no-radar') : message('on-air-now')
}

/** What was told once counts from then: a unit that is called again within the half hour heard no radar again. */
async function told({ target, journal, waits, clock }: UnitRun, move: RadarMove): Promise<void> {
  journal.say(message('radar-heard', { ...move }))
  const known = target.before.radar.find((each) => each.band === move.band && each.from === move.from)
  if (known && shutUntil(known, waits.pace) > clock.wall()) return
  await journal.heardRadar(move, target.plan.radios.find(({ band }) => band === move.band)?.width ?? 20)
}

/** Radios that have left the channel that they are to be on, since they heard radar there: the law makes them. */
function radarMoves(config: Config<Clear>, radios: readonly RadioOnAir[]): RadarMove[] {
  return radios.flatMap(({ band, channel, leftForRadar: from }) =>
    from !== undefined && channel !== undefined && channel !== from && from === config.radios[band]?.['radio.channel']
      ? [{ band, from, to: channel }]
      : [],
  )
}

/** A network on air without security that was not said to be open. */
export function unmeantOpen(config: Config<Clear>, radios: readonly RadioOnAir[]): { ssid: string } | undefined {
  return radios
    .flatMap((radio) => radio.networks)
    .find(({ id, security }) => security === 'open' && config.networks[id]?.['network.security'] !== 'open')
}

function airFaults(
  config: Config<Clear>,
  band: string,
  desired: Config<Clear>['radios'][string],
  seen: RadioOnAir | undefined,
): Message[] {
  if (!desired['radio.enabled'])
    return seen && seen.condition !== 'off' ? [message('radio-should-be-off', { band, condition: seen.condition })] : []
  if (seen?.condition !== 'on-air') return [message('radio-is', { band, condition: seen?.condition ?? 'missing' })]
  const faults: Message[] = []
  const [channel, width] = [desired['radio.channel'], desired['radio.width']]
  const movedByRadar = channel !== undefined && seen.leftForRadar === channel
  const elsewhere = (channel !== undefined && seen.channel !== channel) || (width !== undefined && seen.width !== width)
  if (elsewhere && !movedByRadar)
    faults.push(
      message('radio-elsewhere', {
        band,
        channel: seen.channel ?? null,
        width: seen.width ?? null,
        plannedChannel: channel ?? null,
        plannedWidth: width ?? null,
      }),
    )
  for (const [id, network] of Object.entries(config.networks)) {
    if (!network['network.enabled'] || !network['network.bands']?.some((each) => each === band)) continue
    const found = seen.networks.find((each) => each.id === id)
    const ssid = network['network.ssid'] ?? ''
    if (!found) faults.push(message('network-not-on-air', { ssid, band }))
    else if (found.security !== network['network.security'])
      faults.push(message('network-secured-otherwise', { ssid, band, security: found.security }))
  }
  return faults
}
