/**
 * Asks a unit's SNMP agent: as a user of version 3 (RFC 3414; SHA-256 by RFC 7860, AES-128 by RFC 3826), or with a
 * community of version 2c. What comes is hostile: only the peer's own datagrams count, and none of them throws.
 */

import { createSocket, type Socket } from 'node:dgram'
import snmp from 'net-snmp'
import { messageText } from '../../core/message/message'
import type { DatagramPath } from '../host/host'
import { longestValue, plainText, type SnmpAnswer, type SnmpUser, type SnmpValue } from './answer'

/**
 * Twice this, ms, is waited for in all: a datagram may get lost. To find out who a user is takes questions of its own.
 */
const answersWithin = { user: 1000, community: 400 } as const

/** Asks as a user of version 3, signed and enciphered: what is told proves the keys. */
export function askAsUser(path: DatagramPath, login: SnmpUser, objects: readonly string[]): Promise<SnmpAnswer> {
  const user = {
    name: login.user,
    level: snmp.SecurityLevel.authPriv,
    authProtocol: snmp.AuthProtocols.sha256,
    authKey: login.authentication,
    privProtocol: snmp.PrivProtocols.aes,
    privKey: login.privacy,
  }
  const to = { ...path, within: answersWithin.user }
  return ask(to, (options) => snmp.createV3Session(path.host, user, { ...options, version: snmp.Version3 }), objects)
}

/** Asks with a community of version 2c, which goes over the wire in clear. */
export function askCommunity(path: DatagramPath, community: string, objects: readonly string[]): Promise<SnmpAnswer> {
  const open = (options: ReturnType<typeof optionsFor>): snmp.Session =>
    snmp.createSession(path.host, community, { ...options, version: snmp.Version2c })
  return ask({ ...path, within: answersWithin.community }, open, objects)
}

interface Path extends DatagramPath {
  readonly within: number
  /** Told of a reply that could not be read. */
  garbled: () => void
}

function optionsFor(path: Path) {
  return {
    port: path.port,
    sourceAddress: path.source,
    transport: 'udp4' as const,
    timeout: path.within,
    backoff: 1,
    retries: 1,
    dgramModule: { createSocket: () => guarded(path) },
  }
}

/** A socket that hears one peer alone; an error of its listener is a reply that cannot be read, and nobody waits on. */
function guarded({ host, port, garbled }: Path): Socket {
  const socket = createSocket('udp4')
  const on = socket.on.bind(socket) as (event: string, listener: (...args: never[]) => void) => Socket
  socket.on = ((event: string, listener: (...args: unknown[]) => void) =>
    event === 'message'
      ? on(event, (message: Buffer, from: { address: string; port: number }) => {
          if (from.address !== host || from.port !== port) return
          try {
            listener(message, from)
          } catch {
            garbled()
          }
        })
      : on(event, listener)) as Socket['on']
  return socket
}

function ask(
  to: Omit<Path, 'garbled'>,
  open: (options: ReturnType<typeof optionsFor>) => snmp.Session,
  objects: readonly string[],
): Promise<SnmpAnswer> {
  return new Promise((resolve) => {
    const garbled = (): void => end({ kind: 'refused', why: messageText('reply-unreadable') })
    const session = open(optionsFor({ ...to, garbled }))
    let isOver = false
    const end = (answer: SnmpAnswer): void => {
      if (isOver) return
      isOver = true
      clearTimeout(late)
      session.close()
      resolve(answer)
    }
    // A reply that is lost on its way through the library leaves nobody who waits.
    const late = setTimeout(() => end({ kind: 'silent' }), 4 * to.within)
    // A datagram that cannot be read is none, and the one that is waited for may still come.
    session.on('error', () => undefined)
    session.get([...objects], (error, values) => end(error ? answerTo(error) : { kind: 'told', values: told(values) }))
  })
}

function answerTo(error: Error): SnmpAnswer {
  if (error.name === 'RequestTimedOutError') return { kind: 'silent' }
  // A socket that a router tells that nobody listens there.
  if ('code' in error && typeof error.code === 'string') return { kind: 'silent' }
  return { kind: 'refused', why: plainText(error.message) }
}

function told(values: readonly snmp.Varbind[] | undefined): (SnmpValue | undefined)[] {
  return (values ?? []).map(({ type, value }) => {
    if (type === snmp.ObjectType.NoSuchObject || type === snmp.ObjectType.NoSuchInstance) return undefined
    if (value instanceof Uint8Array) return value.subarray(0, longestValue)
    return typeof value === 'number' ? value : plainText(String(value))
  })
}
