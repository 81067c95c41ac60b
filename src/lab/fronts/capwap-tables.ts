/** What a controller's SNMP agent shows of its access points: two tables of CAPWAP-BASE-MIB (RFC 5833). */
import snmp from 'net-snmp'
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

const profiles = {
  name: 'capwapBaseWtpProfileTable',
  type: snmp.MibProviderType.Table,
  oid: '1.3.6.1.2.1.196.1.2.1.1',
  maxAccess: hidden,
  tableColumns: [
    column(1, 'capwapBaseWtpProfileId', Unsigned32, hidden),
    column(3, 'capwapBaseWtpProfileWtpMacAddress', OctetString),
    column(5, 'capwapBaseWtpProfileWtpName', OctetString),
  ],
  tableIndex: [{ columnName: 'capwapBaseWtpProfileId' }],
}
const standings = {
  name: 'capwapBaseWtpStateTable',
  type: snmp.MibProviderType.Table,
  oid: '1.3.6.1.2.1.196.1.2.2.1',
  maxAccess: hidden,
  tableColumns: [
    column(1, 'capwapBaseWtpStateWtpId', OctetString, hidden),
    column(2, 'capwapBaseWtpStateWtpIpAddressType', Integer32),
    column(3, 'capwapBaseWtpStateWtpIpAddress', OctetString),
    column(7, 'capwapBaseWtpState', Integer32),
    column(8, 'capwapBaseWtpStateWtpUpTime', TimeTicks),
    column(9, 'capwapBaseWtpStateWtpCurrWtpProfileId', Unsigned32),
  ],
  tableIndex: [{ columnName: 'capwapBaseWtpStateWtpId' }],
}

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
    for (const table of [profiles, standings]) mib.registerProvider(table)
  }

  /** Shows how they stand now. */
  show({ effective, joins, identity }: Device): void {
    const points = effective.points.map((point) => ({ point, join: joins.of(point.mac, identity.mac) }))
    const rows = points.map(({ point, join }, at) => ({
      profile: [at + 1, octets(point.mac), Buffer.from(point.name)],
      standing: standingRow(point, join, at + 1),
    }))
    const now = JSON.stringify(rows)
    if (now === this.#shown) return
    this.#shown = now
    this.#replace(
      profiles,
      rows.map(({ profile }) => profile),
    )
    this.#replace(
      standings,
      rows.map(({ standing }) => standing),
    )
  }

  #replace(table: typeof profiles, rows: readonly Row[]): void {
    this.#mib.unregisterProvider(table.name)
    this.#mib.registerProvider(table)
    for (const row of rows) this.#mib.addTableRow(table.name, [...row])
  }
}

function standingRow({ mac }: ManagedPoint, { standing, unit }: Join, profile: number): Row {
  const address = standing === 'absent' ? null : (unit?.address ?? null)
  const bytes = address === null ? Buffer.alloc(0) : Buffer.from(address.split('.').map(Number))
  return [octets(mac), address === null ? 0 : 1, bytes, states[standing], 0, profile]
}

const octets = (mac: string): Buffer => Buffer.from(mac.replaceAll(':', ''), 'hex')
