/** NETCONF over SSH (RFC 6242) in front of a unit. It listens on loopback; the wire says who reaches it. */
import type { Connection, Session } from 'ssh2'
import type { Device } from '../../device/device'
import { Flash } from '../../device/flash'
import { CapwapAnswerer } from '../capwap'
import type { Front } from '../front'
import { SshService } from '../ssh-service'
import { Conversation } from './conversation'
import { Datastores } from './datastores'

const netconfPort = 830
const capwapPort = 5246

export class NetconfServer implements Front {
  private constructor(
    private readonly unit: Device,
    private readonly stores: Datastores,
    private readonly service: SshService,
    private readonly capwap: CapwapAnswerer | undefined,
  ) {}

  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<NetconfServer> {
    const stores = new Datastores(unit)
    const service = await SshService.listen(unit, flash, conversations(unit, stores))
    const capwap = unit.sheet.mostPoints === null ? undefined : await CapwapAnswerer.listen(unit)
    return new NetconfServer(unit, stores, service, capwap)
  }

  loopbackPort(port: number): number | undefined {
    return port === netconfPort ? this.service.port : undefined
  }

  datagramPort(port: number): number | undefined {
    return port === capwapPort ? this.capwap?.port : undefined
  }

  dropConnections(): void {
    // Moved to another address it is up all the while, and a commit still waits for its word.
    if (this.unit.phase !== 'up') this.stores.forget()
    this.service.dropConnections()
  }

  async renewIdentity(): Promise<void> {
    this.service.renewKey()
    this.dropConnections()
  }

  async close(): Promise<void> {
    this.stores.forget()
    await this.capwap?.close()
    await this.service.close()
  }
}

/** A conversation for each session, numbered as RFC 6241, 8.1 has it. */
function conversations(unit: Device, stores: Datastores) {
  let sessions = 0
  return (session: Session, connection: Connection, user: string): void => {
    session.on('subsystem', (take, reject, { name }) => {
      if (name !== 'netconf') return reject()
      const channel = take()
      sessions += 1
      const number = sessions
      const talk = new Conversation(
        unit,
        stores,
        { number, user },
        (text) => channel.write(text),
        () => connection.end(),
      )
      channel.on('error', () => connection.end())
      channel.on('data', (bytes: Buffer) => talk.take(bytes))
      connection.once('close', () => stores.ended(number))
    })
  }
}
