/**
 * What differs between what a unit is to be and what it is.
 *
 * In: two configurations. Out: differences, each with a path, both values and a sentence. A sentence never holds a
 * secret, and neither may anything that is logged: use `withoutSecret`.
 */
import type { NetworkConfig, RadioConfig, UnitConfig } from './unit-config'

/** Parts of a configuration, each written by one step of a muster. */
export const configParts = ['country', 'clock', 'name', 'networks', 'radios', 'services', 'management'] as const
export type ConfigPart = (typeof configParts)[number]

export interface Difference {
  /** The part first, then the key in a list, then the field. */
  readonly path: readonly [ConfigPart, ...string[]]
  /** Undefined where the unit has something that it should not have. */
  readonly wanted: unknown
  /** Undefined where the unit lacks it. */
  readonly found: unknown
  readonly secret: boolean
  readonly sentence: string
}

/** A difference as it may be stored or shown: the values of a secret are left out. */
export function withoutSecret({ path, wanted, found, secret, sentence }: Difference): Record<string, unknown> {
  const hasSecret = secret || path[0] === 'networks'
  return hasSecret ? { path, sentence } : { path, wanted, found, sentence }
}

/** Everything that differs, in the order of `configParts`. */
export function compare(wanted: UnitConfig, found: UnitConfig): Difference[] {
  return [
    ...field(['country'], 'Country', wanted.country, found.country),
    ...field(['clock', 'timeZone'], 'Time zone', wanted.clock.timeZone, found.clock.timeZone),
    ...field(['clock', 'ntpServers'], 'Time server', wanted.clock.ntpServers, found.clock.ntpServers),
    ...field(['name'], 'Name', wanted.name, found.name),
    ...compareNetworks(wanted.networks, found.networks),
    ...wanted.radios.flatMap((radio) =>
      compareRadio(
        radio,
        found.radios.find((other) => other.band === radio.band),
      ),
    ),
    ...field(['services', 'lights'], 'Indicator lights', wanted.services.lights, found.services.lights),
    ...compareManagement(wanted, found),
  ]
}

function compareNetworks(wanted: readonly NetworkConfig[], found: readonly NetworkConfig[]): Difference[] {
  const surplus = found
    .filter((network) => !wanted.some((other) => other.ssid === network.ssid))
    .map(
      (network): Difference => ({
        path: ['networks', network.ssid],
        wanted: undefined,
        found: network,
        secret: false,
        sentence: `Network "${network.ssid}" is on the unit and not in the brief.`,
      }),
    )
  return [
    ...surplus,
    ...wanted.flatMap((network) =>
      compareNetwork(
        network,
        found.find((other) => other.ssid === network.ssid),
      ),
    ),
  ]
}

function compareNetwork(wanted: NetworkConfig, found: NetworkConfig | undefined): Difference[] {
  const { ssid } = wanted
  if (!found)
    return [
      { path: ['networks', ssid], wanted, found: undefined, secret: false, sentence: `Network "${ssid}" is missing.` },
    ]
  const of = (name: string): string => `Network "${ssid}": ${name}`
  // Null is a passphrase that the unit does not show: it is written anew only with the security itself.
  const passphraseDiffers =
    found.security.passphrase !== null && wanted.security.passphrase !== found.security.passphrase
  return [
    ...field(['networks', ssid, 'security', 'mode'], of('security'), wanted.security.mode, found.security.mode),
    ...(passphraseDiffers
      ? [
          {
            path: ['networks', ssid, 'security', 'passphrase'] as const,
            wanted: wanted.security.passphrase,
            found: found.security.passphrase,
            secret: true,
            sentence: `${of('the passphrase')} differs.`,
          },
        ]
      : []),
    ...field(['networks', ssid, 'enabled'], of('switched on'), wanted.enabled, found.enabled),
    ...field(['networks', ssid, 'hidden'], of('hidden'), wanted.hidden, found.hidden),
    ...field(['networks', ssid, 'vlan'], of('VLAN'), wanted.vlan, found.vlan),
    ...field(['networks', ssid, 'isolation'], of('client isolation'), wanted.isolation, found.isolation),
    ...field(['networks', ssid, 'bands'], of('bands'), [...wanted.bands].sort(), [...found.bands].sort()),
  ]
}

function compareRadio(wanted: RadioConfig, found: RadioConfig | undefined): Difference[] {
  const { band } = wanted
  if (!found)
    return [
      {
        path: ['radios', band],
        wanted,
        found: undefined,
        secret: false,
        sentence: `The unit shows no ${band} GHz radio.`,
      },
    ]
  return [
    ...field(['radios', band, 'channel'], `Channel at ${band} GHz`, wanted.channel, found.channel),
    ...field(['radios', band, 'width'], `Width at ${band} GHz (MHz)`, wanted.width, found.width),
    ...field(['radios', band, 'powerDbm'], `Power at ${band} GHz (dBm)`, wanted.powerDbm, found.powerDbm),
    ...field(['radios', band, 'enabled'], `Radio at ${band} GHz`, wanted.enabled, found.enabled),
  ]
}

function compareManagement(wanted: UnitConfig, found: UnitConfig): Difference[] {
  const a = wanted.management
  const b = found.management
  return [
    ...field(['management', 'method'], 'Addressing', a.method, b.method),
    ...field(['management', 'address'], 'Address', a.address, b.address),
    ...field(['management', 'prefix'], 'Prefix length', a.prefix, b.prefix),
    ...field(['management', 'gateway'], 'Gateway', a.gateway, b.gateway),
    ...field(['management', 'dnsServers'], 'DNS server', a.dnsServers, b.dnsServers),
  ]
}

type Plain = string | number | boolean | null | readonly string[]

function field(path: readonly [ConfigPart, ...string[]], what: string, wanted: Plain, found: Plain): Difference[] {
  if (words(wanted) === words(found)) return []
  return [{ path, wanted, found, secret: false, sentence: `${what} is ${words(found)}, to be ${words(wanted)}.` }]
}

function words(value: Plain): string {
  if (value === null || (Array.isArray(value) && value.length === 0)) return 'none'
  if (typeof value === 'boolean') return value ? 'on' : 'off'
  return Array.isArray(value) ? value.join(', ') : String(value)
}
