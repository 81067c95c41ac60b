/**
 * Networks that a unit ships with are a way in from its first power-on, open or with a printed passphrase: they go off
 * air before anything else is changed, a firmware that takes minutes too.
 */
import { networkName } from '../../core/config/compare'
import { isManaged } from '../../core/kit/kit-card'
import type { UnitRun } from '../unit-run'

/** @returns what was taken off air; undefined where there was nothing, or nothing takes effect before all of it does */
export async function silence(run: UnitRun): Promise<string | undefined> {
  const { target, access, journal } = run
  const { card, compiled } = target
  // What is staged goes off air with the rest, when that is applied. What a controller manages carries its networks.
  if (card.does.applies === 'staged' || isManaged(card)) return undefined
  const surplus = (await run.differences()).filter(({ kind }) => kind === 'surplus')
  if (surplus.length === 0) return undefined
  const observed = await run.configured()
  const names = surplus.map(({ of }) => networkName(observed, of)).join(', ')
  journal.say(`takes ${names} off air before anything else is changed`)
  run.willChange()
  await access.dialect.write(surplus, compiled.config)
  return `${names} taken off air`
}
