/** An SSH service of a stand-in on loopback: its host key, who may sign in, and what a cable or a reset does to it. */
import { generateKeyPairSync } from 'node:crypto'
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net'
import ssh2, { type Connection, type Session, type Server as SshServer } from 'ssh2'
import type { Device } from '../device/device'
import type { Flash } from '../device/flash'

/** Told each session of whoever has signed in. */
export type OnSession = (session: Session, connection: Connection, user: string) => void

export class SshService {
  readonly #unit: Device
  readonly #flash: Flash
  readonly #onSession: OnSession
  readonly #server: Server
  readonly #sockets = new Set<Socket>()
  #ssh: SshServer

  private constructor(unit: Device, flash: Flash, onSession: OnSession) {
    this.#unit = unit
    this.#flash = flash
    this.#onSession = onSession
    this.#ssh = this.#withKey()
    this.#server = createServer((socket) => {
      this.#sockets.add(socket)
      socket.once('close', () => this.#sockets.delete(socket))
      socket.on('error', () => socket.destroy())
      this.#ssh.injectSocket(socket)
    })
  }

  static async listen(unit: Device, flash: Flash, onSession: OnSession): Promise<SshService> {
    const service = new SshService(unit, flash, onSession)
    await new Promise<void>((resolve) => service.#server.listen(0, '127.0.0.1', resolve))
    return service
  }

  get port(): number {
    return (this.#server.address() as AddressInfo).port
  }

  dropConnections(): void {
    for (const socket of this.#sockets) socket.destroy()
  }

  renewKey(): void {
    this.#flash.remember({ hostKey: undefined })
    this.#ssh = this.#withKey()
  }

  close(): Promise<void> {
    this.dropConnections()
    return new Promise((resolve) => this.#server.close(() => resolve()))
  }

  #withKey(): SshServer {
    const hostKey = this.#flash.memory.hostKey ?? newHostKey()
    this.#flash.remember({ hostKey })
    const ident = `${this.#unit.sheet.maker}-${this.#unit.sheet.model}`
    return new ssh2.Server({ hostKeys: [hostKey], ident }, (connection) => this.#serve(connection))
  }

  #serve(connection: Connection): void {
    let user = ''
    connection.on('error', () => connection.end())
    connection.on('authentication', (context) => {
      if (context.method === 'password' && this.#unit.accepts(context.username, context.password)) {
        user = context.username
        context.accept()
      } else context.reject(['password'])
    })
    connection.on('session', (accept) => this.#onSession(accept(), connection, user))
  }
}

/** Not by ssh2 itself: now and then it cannot read the key that it made. */
function newHostKey(): string {
  return generateKeyPairSync('ec', {
    namedCurve: 'prime256v1',
    privateKeyEncoding: { type: 'sec1', format: 'pem' },
    publicKeyEncoding: { type: 'spki', format: 'pem' },
  }).privateKey
}
