/** What a stand-in's sheet tells of it: what its maker built. */
import type { DeviceNetwork, DeviceRadio } from './device-settings'

export interface StandInSheet {
  readonly maker: string
  readonly model: string
  readonly firmware: string
  readonly factory: {
    /** Null where it has none unless it is given one. */
    readonly address: string | null
    readonly prefix: number
    /** Whether it asks DHCP before it takes its own address. */
    readonly asksDhcp: boolean
    readonly login: { readonly user: string; readonly password: string }
    /** Null where it asks whoever sets it up. */
    readonly country: string | null
    readonly radios: readonly DeviceRadio[]
    /** SSID of the network that is there and switched off. */
    readonly network: string
  }
  /** That network ends in the last signs of its MAC. */
  readonly namesNetworkByMac?: true
  /** Seconds. */
  readonly timing: {
    readonly start: number
    readonly apply: number
    readonly restart: number
    readonly resetHold: number
    /** To write an image, where it takes one; of a unit that is managed: to load the one of its controller. */
    readonly image?: number
  }
  /** What it is spoken to in. */
  readonly front: 'restconf' | 'netconf' | 'shell' | 'pages' | 'hearth' | 'managed'
  /** Where its RESTCONF begins (RFC 8040, 3.1). */
  readonly root: string
  /** Places for networks that each radio has; null where networks are kept by the unit. */
  readonly slots: number | null
  /** Access points that its licence lets join; null where it is no controller. */
  readonly mostPoints: number | null
  /** Whoever joins it carries all of its networks; left out where it says for each which. */
  readonly pointsCarryAll?: true
  readonly ignoresPing: boolean
  /** How many may be signed in at once. */
  readonly sessions: 'one' | 'many'
  /** What its light does. */
  readonly lights: Readonly<Record<'starting' | 'applying' | 'on-air' | 'silent' | 'not-saved', string>>
  readonly managementInterface: string
  readonly powers: Readonly<Record<string, readonly number[]>>
  readonly widths: Readonly<Record<string, readonly number[]>>
  readonly mostNetworks: number
  readonly passwordShortest: number
  readonly securities: readonly DeviceNetwork['mode'][]
  /** Names of what its firmware does not know, as its protocol has them. */
  readonly lacks: readonly string[]
  /** Rates are kept in whole steps of so many kbit/s. */
  readonly rateStep: number
  /** Time zones are rules of POSIX. */
  readonly zones: 'names' | 'rules'
  readonly showsPassphrases: boolean
  /** The one country that it was sold for. */
  readonly soldFor: string | null
  readonly applies: 'staged' | 'at-once'
  readonly saves: 'itself' | 'on-command'
  /** System description that it sends by LLDP; null where it sends none. */
  readonly lldp: string | null
  /** SNMPv2-MIB sysObjectID, below the number for documentation (RFC 5612). */
  readonly objectId: string
  /** Its SNMP agent tells whoever says `public`, as careless firmware does. */
  readonly tellsPublic: boolean
  /** What its controller sends it to run does not arrive whole. */
  readonly losesImages: boolean
  /** Who has signed the certificate that it was made with. */
  readonly certificate?: 'unknown'
  /** Has a login that somebody else gave it, and lets nobody give it another. */
  readonly keepsLogin?: true
  /** Takes a network without a word of its security, as careless firmware does, and puts it on air open. */
  readonly careless: boolean
}
