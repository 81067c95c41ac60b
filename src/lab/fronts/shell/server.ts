/**
 * A command line over SSH (RFC 4254, 6.5) in front of an access point. It listens on loopback, and has a prompt only:
 * a command without a terminal is not run.
 */
import { type AddressInfo, createServer, type Server, type Socket } from 'node:net'
import ssh2, { type Connection, type Server as SshServer } from 'ssh2'
import type { Device } from '../../device/device'
import { Flash } from '../../flash'
import type { Front } from '../front'
import { newHostKey } from '../host-key'
import { Terminal } from './terminal'

const sshPort = 22

export class ShellServer implements Front {
  readonly #unit: Device
  readonly #flash: Flash
  readonly #server: Server
  readonly #sockets = new Set<Socket>()
  #signedIn = 0
  #ssh: SshServer
  #port = 0

  private constructor(unit: Device, flash: Flash) {
    this.#unit = unit
    this.#flash = flash
    this.#ssh = this.#withKey()
    this.#server = createServer((socket) => {
      this.#sockets.add(socket)
      socket.once('close', () => this.#sockets.delete(socket))
      socket.on('error', () => socket.destroy())
      this.#ssh.injectSocket(socket)
    })
  }

  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<ShellServer> {
    const front = new ShellServer(unit, flash)
    await new Promise<void>((resolve) => front.#server.listen(0, '127.0.0.1', resolve))
    front.#port = (front.#server.address() as AddressInfo).port
    return front
  }

  loopbackPort(port: number): number | undefined {
    return port === sshPort ? this.#port : undefined
  }

  dropConnections(): void {
    for (const socket of this.#sockets) socket.destroy()
  }

  async renewIdentity(): Promise<void> {
    this.#flash.remember({ hostKey: undefined })
    this.#ssh = this.#withKey()
    this.dropConnections()
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
    connection.on('error', () => connection.end())
    connection.on('authentication', (context) => {
      if (context.method === 'password' && this.#unit.accepts(context.username, context.password)) context.accept()
      else context.reject(['password'])
    })
    connection.on('session', (accept) => {
      const session = accept()
      session.on('pty', (take) => take?.())
      session.on('shell', (take) => {
        const channel = take()
        channel.on('error', () => connection.end())
        if (this.#signedIn > 0 && this.#unit.sheet.sessions === 'one') {
          channel.end('somebody is signed in already\r\n')
          return
        }
        this.#signedIn += 1
        connection.once('close', () => {
          this.#signedIn -= 1
        })
        const terminal = new Terminal(
          this.#unit,
          (text) => channel.write(text),
          () => channel.end(),
        )
        channel.on('data', (bytes: Buffer) => terminal.type(bytes))
      })
    })
  }
}
