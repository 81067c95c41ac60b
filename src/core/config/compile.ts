/**
 * Turns what the site is to have into what one unit is to be.
 *
 * In: the brief, the unit with its plan and card, and the secrets by name. Out: a configuration, or the reasons why
 * this unit cannot be set: an open network and an illegal channel stop here, before any unit hears of them.
 */
import { isHostOf, parseCidr, parseIpv4 } from '../addressing/ipv4'
import { adminSecretName, type Brief, secretName } from '../brief/brief'
import { securityNames, takesPassphrase, type WirelessNetwork } from '../brief/wireless-network'
import { type KitCard, modelName } from '../kit/kit-card'
import type { Unit } from '../kit/unit'
import type { UnitPlan } from '../plan/plan'
import type { CountryRules } from '../regulatory/database'
import { judgeChannel } from '../regulatory/legal'
import { passphraseFault } from '../secrets/passphrase'
import type { NetworkConfig, RadioConfig, UnitConfig } from './unit-config'

export interface Compiled {
  readonly config: UnitConfig
  /** The new admin password; it is proven by signing in, never compared. */
  readonly password: string
}

export type Compilation =
  | { readonly ok: true; readonly compiled: Compiled }
  | { readonly ok: false; readonly reasons: readonly string[] }

export interface CompileInput {
  readonly brief: Brief
  readonly unit: Unit
  readonly plan: UnitPlan
  readonly card: KitCard
  readonly country: CountryRules
  /** Clear text by the name that the vault files it under. */
  readonly secrets: ReadonlyMap<string, string>
}

export function compile(input: CompileInput): Compilation {
  const { brief, unit, card, secrets } = input
  const password = secrets.get(adminSecretName(brief.admin, unit.id))
  const cidr = parseCidr(brief.management.cidr)
  const reasons = [...networkReasons(input), ...radioReasons(input)]
  if (password === undefined) reasons.push('There is no admin password for this unit yet: have one made in the brief.')
  else if (password.length < card.limits.passwordShortest || password.length > card.limits.passwordLongest)
    reasons.push(
      `${modelName(card)} takes an admin password of ${card.limits.passwordShortest} to ${card.limits.passwordLongest} characters.`,
    )
  reasons.push(...addressReasons(input))
  if (reasons.length > 0 || password === undefined || !cidr) return { ok: false, reasons }
  return { ok: true, compiled: { password, config: unitConfigOf(input, cidr.prefix) } }
}

/** The configuration by itself, nothing judged. @param prefix  prefix length of the management network */
export function unitConfigOf(
  { brief, unit, plan, card, secrets }: Omit<CompileInput, 'country'>,
  prefix: number,
): UnitConfig {
  return {
    country: brief.country,
    clock: { timeZone: brief.timeZone, ntpServers: brief.ntpServers },
    name: unit.name,
    management: {
      method: 'static',
      address: plan.address,
      prefix,
      gateway: brief.management.gateway,
      dnsServers: brief.management.dnsServers,
    },
    networks: networksOf(brief, card).map((network) => networkConfig(network, card, secrets)),
    radios: plan.radios.map(
      (radio): RadioConfig => ({
        band: radio.band,
        enabled: true,
        channel: radio.channel,
        width: radio.width,
        powerDbm: radio.power.set,
      }),
    ),
    admin: { user: card.factory.login.user },
    services: { lights: brief.admin.lights === 'on' },
  }
}

/** Networks that this model has a radio for. */
function networksOf(brief: Brief, card: KitCard): WirelessNetwork[] {
  return brief.networks.filter((network) =>
    network.bands.some((band) => card.radios.some((radio) => radio.band === band)),
  )
}

function networkConfig(network: WirelessNetwork, card: KitCard, secrets: ReadonlyMap<string, string>): NetworkConfig {
  return {
    ssid: network.ssid,
    enabled: true,
    hidden: network.hidden,
    security: {
      mode: network.security,
      passphrase: takesPassphrase(network.security) ? (secrets.get(secretName.passphrase(network)) ?? null) : null,
    },
    vlan: network.vlan,
    isolation: network.isolation,
    bands: network.bands.filter((band) => card.radios.some((radio) => radio.band === band)),
  }
}

/** A unit that is sent outside its subnet, or to a gateway that it cannot reach, is stranded. */
function addressReasons({ brief: { management }, plan }: CompileInput): string[] {
  const cidr = parseCidr(management.cidr)
  if (!cidr) return [`${management.cidr} is not a subnet.`]
  const isHost = (text: string): boolean => {
    const address = parseIpv4(text)
    return address !== undefined && isHostOf(cidr, address)
  }
  const { gateway } = management
  return [
    ...(isHost(plan.address)
      ? []
      : [`Its planned address ${plan.address} is not one of ${management.cidr}: plan again.`]),
    ...(gateway === null || isHost(gateway)
      ? []
      : [`The gateway ${gateway} is not in ${management.cidr}: the unit could not reach it. Correct the brief.`]),
    ...(gateway === plan.address ? [`Its planned address ${plan.address} is that of the gateway: plan again.`] : []),
  ]
}

function networkReasons({ brief, card, secrets }: CompileInput): string[] {
  const reasons: string[] = []
  const networks = networksOf(brief, card)
  if (networks.length > card.limits.mostNetworks)
    reasons.push(`The brief has ${networks.length} networks; ${modelName(card)} carries ${card.limits.mostNetworks}.`)
  for (const network of networks) reasons.push(...securityReasons(network, card, secrets))
  return reasons
}

function securityReasons(network: WirelessNetwork, card: KitCard, secrets: ReadonlyMap<string, string>): string[] {
  const { ssid, security } = network
  // Open only when said twice: in the mode, and by the name typed again.
  if (security === 'open' && network.openConfirmation !== ssid)
    return [
      `"${ssid}" has no security: no open network is put on air unless its name is typed a second time in the brief.`,
    ]
  if (!card.limits.security.includes(security))
    return [`${modelName(card)} cannot carry "${ssid}": it does not know ${securityNames[security]}.`]
  if (!takesPassphrase(security)) return []
  const passphrase = secrets.get(secretName.passphrase(network))
  const fault = passphrase === undefined ? 'There is no passphrase yet.' : passphraseFault(passphrase)
  return fault ? [`"${ssid}": ${fault}`] : []
}

function radioReasons({ brief, plan, country, card }: CompileInput): string[] {
  return plan.radios.flatMap(({ band, channel, width, power, place }) => {
    const judgement = judgeChannel(country, band, channel, width)
    if (!judgement.legal) return [judgement.refusal.reason]
    const { block } = judgement
    if (block.indoor && place === 'outdoor')
      return [`Channel ${channel} at ${band} GHz is for indoors only in ${brief.country}.`]
    const gain = card.radios.find((radio) => radio.band === band)?.gain ?? 0
    return power.set + gain > block.eirpDbm
      ? [
          `${power.set} dBm with a gain of ${gain} dBi is above the limit of ${block.eirpDbm} dBm on channel ${channel}.`,
        ]
      : []
  })
}
