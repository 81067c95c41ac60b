/** What a stand-in takes of what it is told to be, beside what radio rules say. */
import type { DeviceSettings } from './device-settings'
import { Refusal } from './refusal'
import type { StandInSheet } from './stand-in-sheet'

/** Rates are kept in whole steps. */
export function inWholeSteps({ rateStep: step }: StandInSheet, settings: DeviceSettings): DeviceSettings {
  const whole = (kbps: number | null): number | null =>
    kbps === null ? null : Math.max(1, Math.floor(kbps / step)) * step
  const networks = settings.networks.map((each) => ({
    ...each,
    clientRate: whole(each.clientRate),
    totalRate: whole(each.totalRate),
  }))
  return { ...settings, networks }
}

/** @throws Refusal  more networks, another security or shorter passwords than it takes */
export function checkSettings(
  { mostNetworks, securities, passwordShortest }: StandInSheet,
  { networks }: DeviceSettings,
  passwords: ReadonlyMap<string, string>,
): void {
  if (networks.length > mostNetworks) throw new Refusal('invalid-value', `at most ${mostNetworks} networks`, 'network')
  for (const { name, mode } of networks)
    if (!securities.includes(mode)) throw new Refusal('invalid-value', `network "${name}" cannot be ${mode}`, 'network')
  for (const password of passwords.values())
    if (password.length < passwordShortest)
      throw new Refusal('invalid-value', `a password has ${passwordShortest} characters at least`, 'authentication')
}
