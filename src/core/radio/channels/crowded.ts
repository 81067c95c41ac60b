/**
 * Radios that are too many: at 2.4 GHz there are three channels, and where a radio hears three others loudly on its own
 * it takes more air than it gives.
 */
import type { ChannelOption, ChannelProblem } from './channel-problem'
import { overlapOf } from './span'

/** So many others on its channel are too many, where each is heard louder than this, dBm. */
const tooMany = 3
export const loudDbm = -65

/**
 * Radios to switch off, so that none is left that hears too many: whoever hears most first, of equals the later.
 *
 * @param chosen  where every radio is
 */
export function crowdedRadios(problem: ChannelProblem, chosen: ReadonlyMap<string, ChannelOption>): string[] {
  const at24 = problem.radios.filter(({ band }) => band === '2.4').map(({ id }) => id)
  const loud = new Map<string, Set<string>>(at24.map((id) => [id, new Set()]))
  for (const { a, b, dbm } of problem.hears) {
    const [one, other] = [chosen.get(a), chosen.get(b)]
    if (!one || !other || dbm <= loudDbm || overlapOf(one, other) === 0) continue
    loud.get(a)?.add(b)
    loud.get(b)?.add(a)
  }
  const off: string[] = []
  for (;;) {
    const [most] = [...loud]
      .filter(([, heard]) => heard.size >= tooMany)
      .sort(([, a], [, b]) => a.size - b.size)
      .slice(-1)
    if (!most) return off
    const [id, heard] = most
    off.push(id)
    for (const other of heard) loud.get(other)?.delete(id)
    loud.delete(id)
  }
}
