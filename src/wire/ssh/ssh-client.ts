/** SSH over a lane (RFC 4251 to 4253). The host key is pinned before anything is sent. */

import { createHash } from 'node:crypto'
import type { Socket } from 'node:net'
import { Client } from 'ssh2'
import { unnamed } from '../../core/kit/old-crypto'
import { message } from '../../core/message/message'
import type { Credentials } from '../../core/secrets/credentials'
import { OutdatedError, plainReason, WireError } from '../errors/wire-error'
import type { Lane } from '../host/host'
import type { PinCheck } from '../trust/pin'
import { type Agreed, algorithmsFor, everyOldSsh, isDisagreement, oldInSsh } from './old-ssh'

/** A small unit takes its time over the first handshake, above all while it makes its key. */
const handshakeMs = 45_000
const keepAliveMs = 10_000

/**
 * A connection that is signed in. Whoever has it listens for its error and close events from then on.
 * @throws WireError refused, untrusted, unreachable, timeout or garbled
 */
export async function connectSsh(lane: Lane, port: number, login: Credentials, pin: PinCheck): Promise<Client> {
  try {
    return await signedIn(lane, port, login, pin)
  } catch (error) {
    throw (await outdated(lane, port, error)) ?? error
  }
}

/**
 * Where nothing was agreed upon: whether something is with all that is old. Nobody signs in by it.
 * @returns undefined where that is not what stood in the way
 */
async function outdated(lane: Lane, port: number, error: unknown): Promise<OutdatedError | undefined> {
  if (!(error instanceof WireError && error.cause instanceof Error && isDisagreement(error.cause))) return undefined
  const client = new Client()
  try {
    const sock = (await lane.connect(port)) as Socket
    const agreed = await new Promise<Agreed | undefined>((resolve) => {
      client.once('handshake', (negotiated) => resolve(negotiated as unknown as Agreed))
      client.once('error', () => resolve(undefined))
      client.once('close', () => resolve(undefined))
      // Whoever that is, it is told nothing: nobody signs in.
      const nobody = { username: '', authHandler: () => false as const, hostVerifier: () => true }
      client.connect({ sock, ...nobody, algorithms: algorithmsFor(everyOldSsh), readyTimeout: handshakeMs })
    })
    const old = agreed ? unnamed(oldInSsh(agreed), lane.old) : []
    return old.length > 0 ? new OutdatedError(old) : undefined
  } catch {
    return undefined
  } finally {
    client.on('error', () => undefined)
    client.destroy()
  }
}

async function signedIn(lane: Lane, port: number, login: Credentials, pin: PinCheck): Promise<Client> {
  const socket = await lane.connect(port)
  const client = new Client()
  let untrusted: Error | undefined
  try {
    await new Promise<void>((resolve, reject) => {
      client.once('ready', resolve)
      client.once('error', (error) => reject(untrusted ?? openFault(error)))
      client.once('close', () => reject(untrusted ?? new WireError('unreachable', message('closed-connection'))))
      client.on('keyboard-interactive', (_name, _instructions, _language, prompts, answer) =>
        answer(prompts.map(() => login.password)),
      )
      client.connect({
        sock: socket as Socket,
        username: login.user,
        ...(login.privateKey === undefined
          ? { password: login.password, tryKeyboard: true }
          : { privateKey: login.privateKey }),
        algorithms: algorithmsFor(lane.old),
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
  return client
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
    const late = setTimeout(() => end(() => reject(new WireError('timeout', message('says-not-who')))), bannerMs)
    socket.once('error', (error) => end(() => reject(new WireError('unreachable', error.message))))
    socket.once('close', () => end(() => reject(new WireError('garbled', message('says-not-who')))))
    socket.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString('latin1')).slice(0, longestBanner + 2)
      const line = said.split(/\r?\n/).find((each) => each.startsWith('SSH-'))
      if (line !== undefined && /[\r\n]/.test(said)) end(() => resolve(plainReason(line)))
      else if (said.length > longestBanner) end(() => reject(new WireError('garbled', message('no-ssh-service'))))
    })
  })
}
