/** Elements of which several are ticked together for one setting. */
import type { ActValue } from './act'
import { bandByWords, ticksMethod } from './trade-words'

/** One of them, by its label: a band of a network, or a way to an address. */
export function tickOf(
  label: string,
  { isOneOfSeveral, network }: { isOneOfSeveral: boolean; network: string | undefined },
): Extract<ActValue, { kind: 'tick-of' }> | undefined {
  const band = bandByWords(label)
  if (band !== undefined && network !== undefined && label.length <= 12)
    return { kind: 'tick-of', id: 'network.bands', of: network, tick: band }
  const method = isOneOfSeveral ? ticksMethod(label) : undefined
  return method && { kind: 'tick-of', id: 'management.method', of: '', tick: method }
}
