/**
 * A command line over SSH (RFC 4254, 6.5) in front of an access point. It listens on loopback, and has a prompt only:
 * a command without a terminal is not run.
 */
import type { Connection, Session } from 'ssh2'
import type { Device } from '../../device/device'
import { Flash } from '../../device/flash'
import type { Front } from '../front'
import { SshService } from '../ssh-service'
import { Terminal } from './terminal'

const sshPort = 22

export class ShellServer implements Front {
  readonly #service: SshService

  private constructor(service: SshService) {
    this.#service = service
  }

  static async listen(unit: Device, flash = new Flash(undefined, unit.identity.mac)): Promise<ShellServer> {
    return new ShellServer(await SshService.listen(unit, flash, terminals(unit)))
  }

  loopbackPort(port: number): number | undefined {
    return port === sshPort ? this.#service.port : undefined
  }

  dropConnections(): void {
    this.#service.dropConnections()
  }

  async renewIdentity(): Promise<void> {
    this.#service.renewKey()
    this.dropConnections()
  }

  close(): Promise<void> {
    return this.#service.close()
  }
}

/** A terminal for each shell, or for one at a time. */
function terminals(unit: Device) {
  let signedIn = 0
  return (session: Session, connection: Connection): void => {
    session.on('pty', (take) => take?.())
    session.on('shell', (take) => {
      const channel = take()
      channel.on('error', () => connection.end())
      if (signedIn > 0 && unit.sheet.sessions === 'one') {
        channel.end('somebody is signed in already\r\n')
        return
      }
      signedIn += 1
      connection.once('close', () => {
        signedIn -= 1
      })
      const terminal = new Terminal(
        unit,
        (text) => channel.write(text),
        () => channel.end(),
      )
      channel.on('data', (bytes: Buffer) => terminal.type(bytes))
    })
  }
}
