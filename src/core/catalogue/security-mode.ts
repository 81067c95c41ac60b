/** How a network is secured, and what follows from it. */
import { z } from 'zod'

export const securityModes = [
  'wpa2-personal',
  'wpa2-enterprise',
  'wpa3-personal',
  'wpa3-wpa2-mixed',
  'wpa3-enterprise',
  'owe',
  'open',
] as const
export const securityModeSchema = z.enum(securityModes)
export type SecurityMode = z.infer<typeof securityModeSchema>

export const securityNames: Readonly<Record<SecurityMode, string>> = {
  'wpa2-personal': 'WPA2-Personal',
  'wpa2-enterprise': 'WPA2-Enterprise',
  'wpa3-personal': 'WPA3-Personal',
  'wpa3-wpa2-mixed': 'WPA3/WPA2 mixed',
  'wpa3-enterprise': 'WPA3-Enterprise',
  owe: 'OWE, encrypted without a passphrase',
  open: 'Open',
}

/** Is a RADIUS server asked who may join? */
export function asksRadius(mode: SecurityMode): boolean {
  return mode === 'wpa2-enterprise' || mode === 'wpa3-enterprise'
}

/** May it be on air at 6 GHz? IEEE 802.11ax-2021, 12.12.2: SAE, OWE (RFC 8110) or IEEE 802.1X with protected frames. */
export function fits6Ghz(mode: SecurityMode): boolean {
  return mode === 'wpa3-personal' || mode === 'wpa3-enterprise' || mode === 'owe'
}

/**
 * Has it a key that one access point could hand to the next? IEEE 802.11-2020, 13.2: open networks and OWE have none.
 */
export function canRoamFast(mode: SecurityMode): boolean {
  return mode !== 'open' && mode !== 'owe'
}

export type Pmf = 'off' | 'optional' | 'required'
/**
 * Protected management frames (IEEE 802.11-2020, 12.2.8) that a mode may have, the first unless the brief says
 * otherwise: SAE and OWE require them, alone; beside a pre-shared key SAE clients use them and others need not.
 */
export const pmfOf: Readonly<Record<Exclude<SecurityMode, 'open'>, readonly Pmf[]>> = {
  'wpa2-personal': ['off', 'optional', 'required'],
  'wpa2-enterprise': ['off', 'optional', 'required'],
  'wpa3-wpa2-mixed': ['optional'],
  'wpa3-personal': ['required'],
  'wpa3-enterprise': ['required'],
  owe: ['required'],
}

/** Does a client of this network type a passphrase? */
export function takesPassphrase(mode: SecurityMode): boolean {
  return mode === 'wpa2-personal' || mode === 'wpa3-personal' || mode === 'wpa3-wpa2-mixed'
}
