/**
 * A stand-in's own sheet: what its maker built. Kept apart from the kit cards on purpose: a card that is wrong about a
 * model is found out against its stand-in.
 */
import type { YangRadio } from '../../wire/codec/yang-data'

export interface StandInSheet {
  readonly maker: string
  readonly model: string
  readonly factory: {
    readonly address: string
    readonly prefix: number
    readonly login: { readonly user: string; readonly password: string }
    readonly country: string
    readonly radios: readonly YangRadio[]
    /** SSID of the network that is there and switched off. */
    readonly network: string
  }
  /** Seconds. */
  readonly timing: {
    readonly start: number
    readonly apply: number
    readonly restart: number
    readonly resetHold: number
  }
  readonly managementInterface: string
  readonly powers: Readonly<Record<string, readonly number[]>>
  readonly widths: Readonly<Record<string, readonly number[]>>
  readonly mostNetworks: number
  readonly passwordShortest: number
}

export const ostrelO40: StandInSheet = {
  maker: 'Ostrel',
  model: 'O-40',
  factory: {
    address: '192.168.77.1',
    prefix: 24,
    login: { user: 'setup', password: 'setup' },
    country: 'US',
    radios: [
      { band: '2.4', enabled: true, channel: 6, width: 20, power: 20 },
      { band: '5', enabled: true, channel: 36, width: 80, power: 17 },
    ],
    network: 'Ostrel',
  },
  timing: { start: 70, apply: 90, restart: 70, resetHold: 10 },
  managementInterface: 'uplink',
  powers: { '2.4': [5, 8, 11, 14, 17, 20], '5': [5, 8, 11, 14, 17, 20, 23] },
  widths: { '2.4': [20, 40], '5': [20, 40, 80] },
  mostNetworks: 8,
  passwordShortest: 8,
}

/** Sheets by `maker model`. */
export const sheets: ReadonlyMap<string, StandInSheet> = new Map(
  [ostrelO40].map((sheet) => [`${sheet.maker} ${sheet.model}`, sheet]),
)
