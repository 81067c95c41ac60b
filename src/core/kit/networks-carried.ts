/** Which wireless networks are written to a model. */
import type { Band } from '../regulatory/blocks'
import type { KitCard } from './kit-card'

/** Bands of the networks that are written to it: those of its radios, or of the access points that it manages. */
export function bandsOfNetworks({ radios, networkBands }: Pick<KitCard, 'radios' | 'networkBands'>): readonly Band[] {
  return radios.length > 0 ? radios.map(({ band }) => band) : networkBands
}

/** Are wireless networks for clients written to it? A link has no clients; some controllers hold no networks. */
export function carriesNetworks(card: Pick<KitCard, 'radios' | 'networkBands' | 'role'>): boolean {
  return bandsOfNetworks(card).length > 0 && card.role !== 'link-end'
}
