/** What a Hearth's page is told. */

export interface Net {
  readonly id: string
  readonly name: string
  readonly on: boolean
  readonly bands: readonly string[]
  readonly hidden: boolean
  readonly guard: string
  readonly vlan: number | null
  readonly isolated: boolean
}
export interface HearthRadio {
  readonly band: string
  readonly on: boolean
  readonly channel: string
  readonly channels: readonly string[]
  readonly width: string
  readonly widths: readonly string[]
  readonly power: string
  readonly powers: readonly string[]
}
export interface HearthUnit {
  readonly mac: string
  readonly name: string
  readonly spot: string
  readonly state: string
  readonly taken: boolean
  readonly way: string
  readonly address: string
  readonly mask: string
  readonly router: string
  readonly radios: readonly HearthRadio[]
}
export interface HearthView {
  readonly box: {
    readonly name: string
    readonly location: string
    readonly lights: boolean
    readonly zone: string
    readonly country: string
    readonly timeServers: readonly string[]
  }
  readonly state: readonly (readonly [label: string, value: string])[]
  readonly standing: 'none' | 'waiting' | 'applying'
  readonly radios: readonly HearthRadio[]
  readonly air: readonly {
    readonly band: string
    readonly words: string
    readonly channel: string
    readonly width: string
    readonly nets: readonly { readonly name: string; readonly guard: string; readonly bssid: string }[]
  }[]
  readonly nets: readonly Net[]
  /** Units that have found it. */
  readonly units: readonly HearthUnit[]
  readonly guards: readonly string[]
}
