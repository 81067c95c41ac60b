/**
 * Networks that a unit ships with are a way in from its first power-on, open or with a printed passphrase: they go off
 * air before anything else is changed, a firmware that takes minutes too. For how long an open one stood is told.
 */

import { networkName } from '../../core/config/compare'
import { isManaged } from '../../core/kit/kit-card'
import { type Message, message } from '../../core/message/message'
import { standingOf } from '../../wire/dialect/dialect'
import { held } from '../unit/held-error'
import type { UnitRun } from '../unit/unit-run'
import { wentAway } from './address'

/** @returns what was taken off air; undefined where there was nothing, or it waits for the rest */
export async function silence(run: UnitRun): Promise<Message | undefined> {
  const { card } = run.target
  // What a controller manages carries its networks.
  if (isManaged(card)) return undefined
  const open = await openOnAir(run)
  // What is staged goes off air with the rest, when that is applied; what anybody can join cannot wait for that.
  if (card.does.applies === 'staged' && (open === undefined || (await movesWhenApplied(run)))) return undefined
  const surplus = (await run.differences()).filter(({ kind }) => kind === 'surplus')
  if (surplus.length === 0 && open === undefined) return undefined
  if (open !== undefined) {
    run.journal.say(message('ships-open', { ssid: open }))
    await run.journal.shippedOpen(open, 'found', Math.min(run.target.seenSince ?? Infinity, run.clock.wall()))
  }
  const observed = await run.configured()
  const shown = surplus.map(({ of }) => networkName(observed, of))
  const networks = shown.length > 0 ? shown : [open ?? '']
  run.journal.say(message('takes-off-air', { networks }))
  run.willChange()
  if (surplus.length > 0) await run.access.dialect.write(surplus, run.target.compiled.config)
  if (open !== undefined) await offAir(run, open)
  return message('taken-off-air', { networks })
}

/** Name of a network that is no network of ours, and that anybody can join now. */
async function openOnAir({ access, target }: UnitRun): Promise<string | undefined> {
  const { networks } = target.compiled.config
  const onAir = (await access.dialect.air()).flatMap((radio) => radio.networks)
  return onAir.find(({ id, security }) => security === 'open' && networks[id] === undefined)?.ssid
}

/** An earlier muster has left a change of address that waits: the unit would be gone before it is looked for. */
async function movesWhenApplied(run: UnitRun): Promise<boolean> {
  const standing = await standingOf(run.access.dialect)
  if (standing === 'none') return false
  const [then, now] = [(await run.configured()).unit, (await run.inEffect()).unit]
  const ids = ['management.method', 'management.address'] as const
  return ids.some((id) => JSON.stringify(then[id]) !== JSON.stringify(now[id]))
}

/** Waits until no client can join it any more, however the unit gets there. */
async function offAir(run: UnitRun, ssid: string): Promise<void> {
  const { access, journal, waits, target } = run
  const { apply, restart } = target.card.timing
  const { here, credentials } = access
  const standing = await standingOf(access.dialect)
  if (standing === 'waiting') await access.dialect.staging?.apply()
  if (standing !== 'none') {
    const waitingFor = message('taking-off-air', { ssid })
    await journal.tell('backup', { kind: 'waiting', until: waits.due(apply), waitingFor })
  }
  const look = async (): Promise<true | undefined> => {
    const stands = (await standingOf(access.dialect)) !== 'none' || (await openOnAir(run)) !== undefined
    return stands ? undefined : true
  }
  const silent = await waits.until(
    async () => {
      try {
        return await look()
      } catch (error) {
        if (!wentAway(error) || !credentials) throw error
        // It may restart to take it, and ends its sessions then.
        await waits.pause(2)
        await access.signIn(credentials, here).catch((gone: unknown) => {
          if (!wentAway(gone)) throw gone
        })
        return undefined
      }
    },
    (apply + restart) * 2 + 60,
    5,
  )
  if (!silent) throw held('open-network', { ssid })
  // It was away, and is read anew from here on.
  access.contact.begins()
  run.willChange()
  await journal.shippedOpen(ssid, 'silenced')
}
