/**
 * One SSH connection over a lane (RFC 4251 to 4254), for many commands. The host key is pinned before anything is
 * sent; a session in use is never shared, and ends by its own clock.
 */
import { createHash } from 'node:crypto'
import type { Socket } from 'node:net'
import { Client, type ClientChannel } from 'ssh2'
import type { Lane } from '../../host/host'
import type { PinCheck } from '../../trust/pin'
import { plainReason, WireError } from '../../wire-error'
import type { Credentials } from '../dialect'

export interface Ran {
  /** What it printed, on both of its outputs. */
  readonly text: string
  /** Exit status; undefined where the unit tells none. */
  readonly status: number | undefined
}

/** Bytes that one command may print. */
const longestOutput = 1024 * 1024
/** A small unit takes its time over the first handshake, above all while it makes its key. */
const handshakeMs = 45_000
const keepAliveMs = 10_000

export class SshSession {
  readonly #client: Client
  #over: WireError | undefined

  private constructor(client: Client) {
    this.#client = client
    client.on('error', (error) => this.#ended(error.message))
    client.on('close', () => this.#ended('the session was closed'))
  }

  #ended(why: string): void {
    this.#over ??= new WireError('unreachable', plainReason(why))
  }

  /** @throws WireError refused, untrusted, unreachable, timeout or garbled */
  static async open(lane: Lane, port: number, login: Credentials, pin: PinCheck): Promise<SshSession> {
    const socket = await lane.connect(port)
    const client = new Client()
    let untrusted: Error | undefined
    try {
      await new Promise<void>((resolve, reject) => {
        client.once('ready', resolve)
        client.once('error', (error) => reject(untrusted ?? openFault(error)))
        client.once('close', () => reject(untrusted ?? new WireError('unreachable', 'it closed the connection')))
        client.on('keyboard-interactive', (_name, _instructions, _language, prompts, answer) =>
          answer(prompts.map(() => login.password)),
        )
        client.connect({
          sock: socket as Socket,
          username: login.user,
          password: login.password,
          tryKeyboard: true,
          readyTimeout: handshakeMs,
          keepaliveInterval: keepAliveMs,
          keepaliveCountMax: 2,
          hostVerifier: (key: Buffer, verify: (trusted: boolean) => void) => {
            pin(fingerprintOf(key)).then(
              () => verify(true),
              (error: Error) => {
                untrusted = error
                verify(false)
              },
            )
          },
        })
      })
    } catch (error) {
      client.on('error', () => undefined)
      client.destroy()
      throw error
    }
    return new SshSession(client)
  }

  /** @throws WireError unreachable, timeout, or garbled where it prints without end */
  async run(command: string, input: string | undefined, withinSeconds: number): Promise<Ran> {
    if (this.#over) throw this.#over
    const channel = await new Promise<ClientChannel>((resolve, reject) => {
      this.#client.exec(command, (error, opened) =>
        error ? reject(this.#over ?? new WireError('unreachable', plainReason(error.message))) : resolve(opened),
      )
    })
    return new Promise<Ran>((resolve, reject) => {
      const chunks: Buffer[] = []
      let size = 0
      let status: number | undefined
      const fail = (error: WireError): void => {
        clearTimeout(late)
        reject(error)
        this.close()
      }
      const late = setTimeout(
        () => fail(new WireError('timeout', `no answer within ${withinSeconds} s`)),
        withinSeconds * 1000,
      )
      const take = (chunk: Buffer): void => {
        size += chunk.length
        if (size > longestOutput) fail(new WireError('garbled', `a command printed more than ${longestOutput} bytes`))
        else chunks.push(chunk)
      }
      channel.on('data', take)
      channel.stderr.on('data', take)
      channel.on('error', (error: Error) => fail(new WireError('unreachable', plainReason(error.message))))
      channel.on('exit', (code: number | null) => {
        status = code ?? undefined
      })
      channel.on('close', () => {
        clearTimeout(late)
        if (this.#over && status === undefined) reject(this.#over)
        else resolve({ text: Buffer.concat(chunks).toString('utf8'), status })
      })
      channel.end(input)
    })
  }

  close(): void {
    this.#ended('the session was closed here')
    this.#client.destroy()
  }
}

/** SHA-256 of the key, as certificates are told apart too. */
function fingerprintOf(key: Buffer): string {
  return (createHash('sha256').update(key).digest('hex').toUpperCase().match(/../g) ?? []).join(':')
}

function openFault(error: Error & { level?: string }): WireError {
  const reason = plainReason(error.message)
  if (error.level === 'client-authentication') return new WireError('refused', reason, { cause: error })
  if (error.level === 'client-timeout') return new WireError('timeout', reason, { cause: error })
  if (error.level === 'protocol' || error.level === 'handshake')
    return new WireError('garbled', reason, { cause: error })
  return new WireError('unreachable', reason, { cause: error })
}

const longestBanner = 255
const bannerMs = 5000

/** The line with which an SSH service introduces itself (RFC 4253, 4.2). @throws WireError garbled, unreachable */
export async function bannerOf(lane: Lane, port: number): Promise<string> {
  const socket = await lane.connect(port)
  return new Promise((resolve, reject) => {
    let said = ''
    const end = (settle: () => void): void => {
      clearTimeout(late)
      socket.destroy()
      settle()
    }
    const late = setTimeout(() => end(() => reject(new WireError('timeout', 'it does not say who it is'))), bannerMs)
    socket.once('error', (error) => end(() => reject(new WireError('unreachable', error.message))))
    socket.once('close', () => end(() => reject(new WireError('garbled', 'it does not say who it is'))))
    socket.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString('latin1')).slice(0, longestBanner + 2)
      const line = said.split(/\r?\n/).find((each) => each.startsWith('SSH-'))
      if (line !== undefined && /[\r\n]/.test(said)) end(() => resolve(plainReason(line)))
      else if (said.length > longestBanner) end(() => reject(new WireError('garbled', 'it is no SSH service')))
    })
  })
}
