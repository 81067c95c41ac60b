/** One SSH connection for many commands, each in a channel of its own (RFC 4254, 6.5), which tells how it ended. */

import type { Client, ClientChannel } from 'ssh2'
import { type Message, message } from '../../../core/message/message'
import { plainReason, WireError } from '../../errors/wire-error'
import { type CommandSession, longestOutput, type Ran } from './session'

/** Runs each command by itself. */
export class SshCommands implements CommandSession {
  readonly #client: Client
  #over: WireError | undefined

  constructor(client: Client) {
    this.#client = client
    client.on('error', (error) => this.#ended(error.message))
    client.on('close', () => this.#ended(message('session-closed')))
  }

  #ended(why: string | Message): void {
    this.#over ??= new WireError('unreachable', typeof why === 'string' ? plainReason(why) : why)
  }

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
        () => fail(new WireError('timeout', message('no-answer-within', { seconds: withinSeconds }))),
        withinSeconds * 1000,
      )
      const take = (chunk: Buffer): void => {
        size += chunk.length
        if (size > longestOutput) fail(new WireError('garbled', message('printed-too-much', { bytes: longestOutput })))
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
    this.#ended(message('session-closed-here'))
    this.#client.destroy()
  }
}
