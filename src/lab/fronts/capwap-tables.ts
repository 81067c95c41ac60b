/**
 * What a controller's SNMP agent shows of its access points: tables of CAPWAP-BASE-MIB (RFC 5833), CAPWAP-DOT11-MIB
 * (RFC 5834), and of IEEE802dot11-MIB the names of the networks.
 */
import snmp from 'net-snmp'
import type { Band } from '../../core/regulatory/blocks'
import type { Device } from '../device/device'
import type { ManagedPoint } from '../device/device-settings'
import type { Join } from '../device/join'

type Cell = number | string | Buffer
type Row = readonly Cell[]

const { Integer32, Unsigned32, OctetString, TimeTicks } = snmp.ObjectType
const { 'not-accessible': hidden, 'read-only': shown } = snmp.MaxAccess

const column = (number: number, name: string, type: number, maxAccess: number = shown) => ({
  number,
  name,
  type,
  maxAccess,
})

type Column = ReturnType<typeof column>
const table = (name: string, oid: string, indexes: readonly Column[], columns: readonly Column[]) => ({
  name,
  type: snmp.MibProviderType.Table,
  oid,
  maxAccess: hidden,
  tableColumns: [...indexes, ...columns],
  tableIndex: indexes.map((each) => ({ columnName: each.name })),
})
/** Indexes that are no columns of their own table: they have numbers that no column has. */
const elsewhere = (...names: readonly string[]): Column[] =>
  names.map((name, at) => column(90 + at, name, Unsigned32, hidden))

const profiles = table(
  'capwapBaseWtpProfileTable',
  '1.3.6.1.2.1.196.1.2.1.1',
  [column(1, 'capwapBaseWtpProfileId', Unsigned32, hidden)],
  [column(3, 'capwapBaseWtpProfileWtpMacAddress', OctetString), column(5, 'capwapBaseWtpProfileWtpName', OctetString)],
)
const standings = table(
  'capwapBaseWtpStateTable',
  '1.3.6.1.2.1.196.1.2.2.1',
  [column(1, 'capwapBaseWtpStateWtpId', OctetString, hidden)],
  [
    column(2, 'capwapBaseWtpStateWtpIpAddressType', Integer32),
    column(3, 'capwapBaseWtpStateWtpIpAddress', OctetString),
    column(7, 'capwapBaseWtpState', Integer32),
    column(8, 'capwapBaseWtpStateWtpUpTime', TimeTicks),
    column(9, 'capwapBaseWtpStateWtpCurrWtpProfileId', Unsigned32),
  ],
)
const bindings = table(
  'capwapBaseWirelessBindingTable',
  '1.3.6.1.2.1.196.1.2.4.1',
  elsewhere('bindingProfile', 'bindingRadio'),
  [
    column(2, 'capwapBaseWirelessBindingVirtualRadioIfIndex', Integer32),
    column(3, 'capwapBaseWirelessBindingType', Integer32),
  ],
)
const wlans = table('capwapDot11WlanTable', '1.3.6.1.2.1.195.1.1.1', elsewhere('wlanProfile'), [
  column(2, 'capwapDot11WlanProfileIfIndex', Integer32),
  column(3, 'capwapDot11WlanMacType', Integer32),
])
const bound = table('capwapDot11WlanBindTable', '1.3.6.1.2.1.195.1.2.1', elsewhere('boundRadio', 'boundProfile'), [
  column(1, 'capwapDot11WlanBindWlanId', Unsigned32),
  column(2, 'capwapDot11WlanBindBssIfIndex', Integer32),
])
const stations = table('dot11StationConfigTable', '1.2.840.10036.1.1.1', elsewhere('stationInterface'), [
  column(1, 'dot11StationID', OctetString),
  column(9, 'dot11DesiredSSID', OctetString),
])
/** The library cannot take away a table of one column: each has two at least. */
const all = [profiles, standings, bindings, wlans, bound, stations]
type Table = { readonly name: string }

/** Numbers of interfaces: of a network's profile, and of a radio of an access point. */
const ofWlan = (wlan: number): number => 100 + wlan
const ofRadio = (profile: number, radio: number): number => 1000 + profile * 10 + radio

/** capwapBaseWirelessBindingType, and CapwapBaseMacTypeTC. */
const dot11 = 1
const localMac = 1

/** capwapBaseWtpState, by how an access point stands. */
const states: Readonly<Record<Join['standing'], number>> = {
  discovered: 1,
  joining: 2,
  image: 3,
  configuring: 4,
  run: 6,
  'turned-away': 8,
  absent: 9,
}

export class CapwapTables {
  #shown = ''
  readonly #mib

  constructor(mib: ReturnType<ReturnType<typeof snmp.createAgent>['getMib']>) {
    this.#mib = mib
    for (const each of all) mib.registerProvider(each)
  }

  /** Shows how they stand now. */
  show({ effective, joins, identity }: Device): void {
    const points = effective.points.map((point, at) => ({
      point,
      profile: at + 1,
      join: joins.of(point.mac, identity.mac),
    }))
    const radios = points.flatMap(({ point, profile, join }) =>
      radiosOf(point, join).map((radio) => ({ ...radio, point, profile })),
    )
    const networks = effective.networks.map((network, at) => ({ network, wlan: at + 1 }))
    const rows: readonly (readonly [Table, readonly Row[]])[] = [
      [profiles, points.map(({ point, profile }) => [profile, octets(point.mac), Buffer.from(point.name)])],
      [standings, points.map(({ point, profile, join }) => standingRow(point, join, profile))],
      [bindings, radios.map(({ profile, number }) => [profile, number, ofRadio(profile, number), dot11])],
      [wlans, networks.map(({ wlan }) => [wlan, ofWlan(wlan), localMac])],
      [
        bound,
        radios.flatMap(({ point, profile, number, band }) => {
          const carried = networks.filter(
            ({ network }) => network.on && point.networks.includes(network.id) && network.bands.includes(band),
          )
          return carried.map(
            ({ wlan }, at): Row => [ofRadio(profile, number), wlan, at + 1, 10 * ofRadio(profile, number) + at + 1],
          )
        }),
      ],
      [stations, networks.map(({ network, wlan }) => [ofWlan(wlan), octets(identity.mac), Buffer.from(network.name)])],
    ]
    const now = JSON.stringify(rows)
    if (now === this.#shown) return
    this.#shown = now
    for (const [each, own] of rows) this.#replace(each, own)
  }

  #replace(shown: Table, rows: readonly Row[]): void {
    this.#mib.unregisterProvider(shown.name)
    this.#mib.registerProvider(shown)
    for (const row of rows) this.#mib.addTableRow(shown.name, [...row])
  }
}

/** Once it runs its radios are known, in the order that it has them. */
function radiosOf(point: ManagedPoint, { standing, unit }: Join): { number: number; band: Band }[] {
  const bands =
    standing === 'run' && unit ? unit.air().map(({ radio }) => radio.band) : point.radios.map(({ band }) => band)
  return bands.map((band, at) => ({ number: at + 1, band }))
}

function standingRow({ mac }: ManagedPoint, { standing, unit }: Join, profile: number): Row {
  const address = standing === 'absent' ? null : (unit?.address ?? null)
  const bytes = address === null ? Buffer.alloc(0) : Buffer.from(address.split('.').map(Number))
  return [octets(mac), address === null ? 0 : 1, bytes, states[standing], 0, profile]
}

const octets = (mac: string): Buffer => Buffer.from(mac.replaceAll(':', ''), 'hex')
