/** NETCONF over SSH (RFC 6242) in front of a unit. It listens on loopback; the wire says who reaches it. */
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net'
import ssh2, { type Connection, type Server as SshServer } from 'ssh2'
import type { Device } from '../../device/device'
import { Flash } from '../../flash'
import { CapwapAnswerer } from '../capwap'
import type { Front } from '../front'
import { newHostKey } from '../host-key'
import { Conversation } from './conversation'
import { Datastores } from './datastores'

const netconfPort = 830
const capwapPort = 5246

export class NetconfServer implements Front {
  readonly #unit: Device
  readonly #flash: Flash
  readonly #server: Server
  readonly #sockets = new Set<Socket>()
  readonly #stores: Datastores
  #ssh: SshServer
  #sessions = 0
  #capwap: CapwapAnswerer | undefined

  private constructor(unit: Device, flash: Flash) {
    this.#unit = unit
    this.#flash = flash
    this.#stores = new Datastores(unit)
    this.#ssh = this.#withKey()
    this.#server = createServer((socket) => {
      this.#sockets.add(socket)
      socket.once('close', () => this.#sockets.delete(socket))
      socket.on('error', () => socket.destroy())
      this.#ssh.injectSocket(socket)
    })
  }

  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<NetconfServer> {
    const front = new NetconfServer(unit, flash)
    await new Promise<void>((resolve) => front.#server.listen(0, '127.0.0.1', resolve))
    if (unit.sheet.mostPoints !== null) front.#capwap = await CapwapAnswerer.listen(unit)
    return front
  }

  loopbackPort(port: number): number | undefined {
    return port === netconfPort ? (this.#server.address() as AddressInfo).port : undefined
  }

  datagramPort(port: number): number | undefined {
    return port === capwapPort ? this.#capwap?.port : undefined
  }

  dropConnections(): void {
    // Moved to another address it is up all the while, and a commit still waits for its word.
    if (this.#unit.phase !== 'up') this.#stores.forget()
    for (const socket of this.#sockets) socket.destroy()
  }

  async renewIdentity(): Promise<void> {
    this.#flash.remember({ hostKey: undefined })
    this.#ssh = this.#withKey()
    this.dropConnections()
  }

  async close(): Promise<void> {
    this.#stores.forget()
    await this.#capwap?.close()
    for (const socket of this.#sockets) socket.destroy()
    await new Promise<unknown>((resolve) => this.#server.close(resolve))
  }

  #withKey(): SshServer {
    const hostKey = this.#flash.memory.hostKey ?? newHostKey()
    this.#flash.remember({ hostKey })
    const ident = `${this.#unit.sheet.maker}-${this.#unit.sheet.model}`
    return new ssh2.Server({ hostKeys: [hostKey], ident }, (connection) => this.#serve(connection))
  }

  #serve(connection: Connection): void {
    connection.on('error', () => connection.end())
    connection.on('authentication', (context) => {
      if (context.method === 'password' && this.#unit.accepts(context.username, context.password)) context.accept()
      else context.reject(['password'])
    })
    connection.on('session', (accept) => {
      const session = accept()
      session.on('subsystem', (take, reject, { name }) => {
        if (name !== 'netconf') return reject()
        const channel = take()
        this.#sessions += 1
        const number = this.#sessions
        const talk = new Conversation(
          this.#unit,
          this.#stores,
          number,
          (text) => channel.write(text),
          () => connection.end(),
        )
        channel.on('error', () => connection.end())
        channel.on('data', (bytes: Buffer) => talk.take(bytes))
        connection.once('close', () => this.#stores.ended(number))
      })
    })
  }
}
