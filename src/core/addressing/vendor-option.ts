/** How access points are told by DHCP where their controller is, maker by maker: option 43 for those of option 60. */

import { parseIpv4 } from '../address/ipv4'
import type { KitCard } from '../kit/kit-card'

export interface AddressedUnit {
  readonly name: string
  readonly mac: string
  readonly address: string
}

export interface AddressedController extends AddressedUnit {
  /** How its access points look for it: what they say in option 60, and their code within option 43. */
  readonly vendor: { readonly class: string; readonly code: number } | undefined
}

/** How the access points of a controller look for it, by its card. */
export function vendorOf({ discovery }: Pick<KitCard, 'discovery'>): AddressedController['vendor'] {
  return discovery?.vendorClass === undefined
    ? undefined
    : { class: discovery.vendorClass, code: discovery.option43Code }
}

/** What access points that call themselves so in option 60 are told in option 43. */
export interface VendorOption {
  readonly vendorClass: string
  /** For each code the addresses of its controllers. */
  readonly codes: readonly { readonly code: number; readonly addresses: readonly string[] }[]
  /** Value of option 43 (RFC 2132, 8.4), as hexadecimal digits. */
  readonly hex: string
}

/**
 * Option 43 means something else to each maker, so a server gives it only to clients that say in option 60 whose they
 * are (RFC 2132, 8.4 and 9.13).
 */
export function vendorOptions(controllers: readonly AddressedController[]): VendorOption[] {
  const told = controllers.flatMap(({ address, vendor }) => (vendor ? [{ address, ...vendor }] : []))
  return [...new Set(told.map((each) => each.class))].map((vendorClass) => {
    const own = told.filter((each) => each.class === vendorClass)
    const codes = [...new Set(own.map(({ code }) => code))].map((code) => ({
      code,
      addresses: own.filter((each) => each.code === code).map(({ address }) => address),
    }))
    return { vendorClass, codes, hex: option43(codes) }
  })
}

/** For each code its length and its addresses, as bytes. */
function option43(codes: VendorOption['codes']): string {
  const bytes = codes.flatMap(({ code, addresses }) => [
    code,
    addresses.length * 4,
    ...addresses.flatMap((text) => [24, 16, 8, 0].map((shift) => ((parseIpv4(text) ?? 0) >>> shift) & 255)),
  ])
  return bytes.map((byte) => byte.toString(16).padStart(2, '0')).join('')
}
