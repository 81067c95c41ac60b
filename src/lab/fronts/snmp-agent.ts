/**
 * A unit's SNMP agent: shut until it has a user, and then for that user of version 3 alone, unless its maker is
 * careless.
 */
import { createSocket, type Socket } from 'node:dgram'
import snmp from 'net-snmp'
import type { Device } from '../device/device'
import { CapwapTables } from './capwap-tables'

const system = '1.3.6.1.2.1.1'

export class SnmpAgent {
  readonly #socket: Socket = createSocket('udp4')
  readonly #agent
  /** Of a controller. */
  readonly #accessPoints: CapwapTables | undefined

  private constructor(private readonly unit: Device) {
    this.#agent = snmp.createAgent(
      { port: 161, address: '127.0.0.1', dgramModule: { createSocket: () => this.#listening() } },
      () => undefined,
    )
    const scalars: [string, number, number][] = [
      ['sysDescr', 1, snmp.ObjectType.OctetString],
      ['sysObjectID', 2, snmp.ObjectType.OID],
      ['sysName', 5, snmp.ObjectType.OctetString],
      ['sysLocation', 6, snmp.ObjectType.OctetString],
    ]
    for (const [name, number, scalarType] of scalars)
      this.#agent.getMib().registerProvider({
        name,
        type: snmp.MibProviderType.Scalar,
        oid: `${system}.${number}`,
        scalarType,
        maxAccess: snmp.MaxAccess['read-only'],
      })
    this.#accessPoints = unit.sheet.mostPoints === null ? undefined : new CapwapTables(this.#agent.getMib())
  }

  static async listen(unit: Device): Promise<SnmpAgent> {
    const agent = new SnmpAgent(unit)
    await new Promise<void>((resolve) => agent.#socket.once('listening', resolve))
    return agent
  }

  get port(): number {
    return this.#socket.address().port
  }

  /** A socket of the library's on any port of loopback; before it hears a question, the agent is as the unit is. */
  #listening(): Socket {
    const socket = this.#socket
    const bind = socket.bind.bind(socket)
    socket.bind = (() => bind({ address: '127.0.0.1' })) as Socket['bind']
    const on = socket.on.bind(socket) as (event: string, listener: (...args: never[]) => void) => Socket
    socket.on = ((event: string, listener: (...args: unknown[]) => void) =>
      event === 'message'
        ? on(event, (...heard) => {
            if (this.#isOpen()) listener(...heard)
          })
        : on(event, listener)) as Socket['on']
    return socket
  }

  #isOpen(): boolean {
    const { serviceIsUp, effective, sheet } = this.unit
    if (!serviceIsUp || (effective.snmp === null && !sheet.tellsPublic)) return false
    const authorizer = this.#agent.getAuthorizer()
    for (const { name } of [...authorizer.getUsers()]) authorizer.deleteUser(name)
    for (const community of [...authorizer.getCommunities()]) authorizer.deleteCommunity(community)
    if (effective.snmp)
      authorizer.addUser({
        name: effective.snmp.user,
        level: snmp.SecurityLevel.authPriv,
        authProtocol: snmp.AuthProtocols.sha256,
        authKey: effective.snmp.authentication,
        privProtocol: snmp.PrivProtocols.aes,
        privKey: effective.snmp.privacy,
      })
    if (sheet.tellsPublic) authorizer.addCommunity('public')
    const mib = this.#agent.getMib()
    mib.setScalarValue('sysDescr', `${sheet.maker} ${sheet.model} ${this.unit.firmware}`)
    mib.setScalarValue('sysObjectID', sheet.objectId)
    mib.setScalarValue('sysName', effective.name)
    mib.setScalarValue('sysLocation', effective.location)
    this.#accessPoints?.show(this.unit)
    return true
  }

  close(): void {
    this.#agent.close()
  }
}
