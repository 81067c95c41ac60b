/**
 * Turns what the site is to have into what one unit is to be.
 *
 * In: the brief, the unit with its plan and card, and the secrets by name. Out: a configuration, or the reasons why
 * this unit cannot be set: an open network and an illegal channel stop here, before any unit hears of them.
 */

import { isHostOf, parseCidr, parseIpv4 } from '../address/ipv4'
import { adminSecretName, secretName } from '../brief/brief'
import type { WirelessNetwork } from '../brief/wireless-network'
import { settingOf } from '../catalogue/catalogue'
import { asksRadius, takesPassphrase } from '../catalogue/security-mode'
import { matches } from '../input/pattern'
import { adminUser, type KitCard, modelName, whyNotMustered } from '../kit/kit-card'
import { carriesNetworks } from '../kit/networks-carried'
import { type Message, message } from '../message/message'
import { asUsed } from '../radio/channels/as-used'
import { highestLegalStep } from '../radio/channels/power'
import type { CountryRules } from '../regulatory/database'
import { judgeChannel } from '../regulatory/legal'
import { passphraseFault } from '../secrets/passphrase'
import { passwordFaults } from '../secrets/password'
import type { Asking } from './asking'
import { bandsOn, securityUnfit } from './desired-network'
import { type Spoken, spokenOf } from './outcomes'
import type { Clear, Config, Secrecy } from './unit-config'

export interface Compiled {
  readonly config: Config<Clear>
  /** The login that it is to have; it is proven by signing in, never compared. */
  readonly login: { readonly user: string; readonly password: string }
}
export type Compilation =
  | { readonly ok: true; readonly compiled: Compiled }
  | { readonly ok: false; readonly reasons: readonly Message[] }

export interface CompileInput extends Asking<Clear> {
  readonly country: CountryRules
}

/** The login that a unit is to have; without a password until one has been made. */
export function loginOf({ brief, unit, card, secrets }: Asking): { user: string; password: string | undefined } {
  return { user: adminUser(card, brief.admin.user), password: secrets.get(adminSecretName(brief.admin, unit.id)) }
}

export function compile(input: CompileInput): Compilation {
  const { card } = input
  const silent = whyNotMustered(card)
  if (silent !== undefined)
    return { ok: false, reasons: [message('cannot-be-mustered', { model: modelName(card), why: silent })] }
  const { user, password } = loginOf(input)
  const reasons = [...countryReasons(input), ...nameReasons(input), ...networkReasons(input), ...radioReasons(input)]
  if (password === undefined) reasons.push(message('no-admin-password'))
  else reasons.push(...passwordFaults(password, card))
  reasons.push(...addressReasons(input))
  if (reasons.length > 0 || password === undefined) return { ok: false, reasons }
  return { ok: true, compiled: { config: desiredOf(input), login: { user, password } } }
}

/** The configuration without any review: everything asked that this model can be set to. */
export function desiredOf<S extends Secrecy>(asking: Asking<S>): Config<S> {
  return configOf(spokenOf(asking).filter(({ outcome }) => outcome.kind === 'open'))
}

/** Settings by unit, network and radio. A login is proven by signing in, and is not among them. */
export function configOf<S extends Secrecy>(settings: readonly Spoken<S>[]): Config<S> {
  const unit: Record<string, unknown> = {}
  const networks: Record<string, Record<string, unknown>> = {}
  const radios: Record<string, Record<string, unknown>> = {}
  for (const { id, of, value } of settings) {
    const { scope, bySigningIn } = settingOf(id)
    if (bySigningIn) continue
    if (scope === 'unit') unit[id] = value
    else {
      const group = scope === 'network' ? networks : radios
      const values = group[of] ?? {}
      values[id] = value
      group[of] = values
    }
  }
  return { unit, networks, radios } as Config<S>
}

/** A card whose country is locked is refused before anything is written. */
function countryReasons({ brief, card }: CompileInput): Message[] {
  const { country } = card.does
  return country === 'free' || country === brief.country
    ? []
    : [message('locked-to-country', { model: modelName(card), country, asked: brief.country })]
}

function nameReasons({ unit, card }: CompileInput): Message[] {
  return matches(card.limits.namePattern, unit.name)
    ? []
    : [message('name-unfit', { model: modelName(card), name: unit.name, allowed: card.limits.nameWords })]
}

/** A unit that is sent outside its subnet, or to a gateway that it cannot reach, is stranded. */
function addressReasons({ brief: { management }, plan }: CompileInput): Message[] {
  const cidr = parseCidr(management.cidr)
  if (!cidr) return [message('not-a-subnet', { subnet: management.cidr })]
  const isHost = (text: string): boolean => {
    const address = parseIpv4(text)
    return address !== undefined && isHostOf(cidr, address)
  }
  const { gateway } = management
  return [
    ...(isHost(plan.address) ? [] : [message('address-outside', { address: plan.address, subnet: management.cidr })]),
    ...(gateway === null || isHost(gateway)
      ? []
      : [message('gateway-not-in-subnet', { gateway, subnet: management.cidr })]),
    ...(gateway === plan.address ? [message('address-is-gateway', { address: plan.address })] : []),
  ]
}

function networkReasons(input: CompileInput): Message[] {
  const { brief, card, secrets } = input
  if (!carriesNetworks(card)) return []
  const networks = brief.networks.filter((network) => bandsOn(network, input).length > 0)
  const reasons: Message[] = []
  const most = card.limits.mostNetworks
  if (networks.length > most)
    reasons.push(message('too-many-networks-for-model', { count: networks.length, model: modelName(card), most }))
  for (const { band, mostNetworks } of card.radios) {
    const count = networks.filter((network) => bandsOn(network, input).includes(band)).length
    if (count > mostNetworks && count <= most)
      reasons.push(message('too-many-networks-on-band', { count, band, model: modelName(card), most: mostNetworks }))
  }
  for (const network of networks) reasons.push(...securityReasons(network, card, secrets))
  return reasons
}

function securityReasons(network: WirelessNetwork, card: KitCard, secrets: ReadonlyMap<string, string>): Message[] {
  const { ssid, security } = network
  // Open only when said twice: in the mode, and by the name typed again.
  if (security === 'open' && network.openConfirmation !== ssid) return [message('open-not-confirmed', { ssid })]
  const unfit = securityUnfit(network, card)
  if (unfit) return [unfit]
  if (asksRadius(security)) {
    if (network.radius.length === 0) return [message('radius-server-missing', { ssid })]
    if (!secrets.has(secretName.radius(network))) return [message('radius-secret-missing', { ssid })]
  }
  if (!takesPassphrase(security)) return []
  const passphrase = secrets.get(secretName.passphrase(network))
  const fault = passphrase === undefined ? message('passphrase-missing') : passphraseFault(passphrase, security)
  return fault ? [message('of-network', { ssid, told: fault })] : []
}

function radioReasons({ brief, plan, country, card }: CompileInput): Message[] {
  return plan.radios.flatMap(({ band, channel, width, power, environment, use }) => {
    const judgement = judgeChannel(country, band, channel, width)
    if (!judgement.legal) return [judgement.refusal.reason]
    const { block } = judgement
    if (block.indoor && environment === 'outdoor')
      return [message('channel-indoors-only', { channel, band, country: brief.country })]
    const radio = card.radios.find((each) => each.band === band)
    if (!radio) return []
    const used = asUsed(block, { radio, environment, use })
    const most = highestLegalStep(used, radio, use)
    return most === undefined || power.set > most
      ? [message('power-above-limit', { dbm: power.set, gain: radio.gain, limit: used.limitDbm, channel })]
      : []
  })
}
