/** How a session with a unit is opened, over what its card says. */

import type { Duplex } from 'node:stream'
import type { Client, ClientChannel } from 'ssh2'
import type { DirectCard } from '../../../core/kit/kit-card'
import type { PromptDialect } from '../../../core/kit/prompt-dialect'
import { message } from '../../../core/message/message'
import type { Credentials } from '../../../core/secrets/credentials'
import { plainReason, WireError } from '../../errors/wire-error'
import type { Lane } from '../../host/host'
import { bannerOf, connectSsh } from '../../ssh/ssh-client'
import { overTelnet } from '../../telnet/telnet'
import type { PinCheck } from '../../trust/pin'
import { PromptSession } from './prompt-session'
import type { CommandSession } from './session'
import { shownOn } from './shown'
import { SshCommands } from './ssh-commands'

type Spoken = Pick<DirectCard, 'factory'> & { readonly dialect: Pick<PromptDialect, 'over' | 'prompt'> }

/** A terminal as wide as can be: units break longer lines, and what is read would be cut. */
const terminal = { term: 'dumb', cols: 512, rows: 512 }

/** @throws WireError refused, untrusted, unreachable, timeout or garbled */
export async function openSession(
  lane: Lane,
  card: Spoken,
  login: Credentials,
  pin: PinCheck,
): Promise<CommandSession> {
  const { over, prompt } = card.dialect
  if (over === 'ssh') {
    const client = await connectSsh(lane, card.factory.port, login, pin)
    if (!prompt) return new SshCommands(client)
    const channel = await shellOf(client)
    client.on('error', () => channel.destroy())
    return PromptSession.open(channel, prompt, () => client.destroy())
  }
  if (!prompt) throw new WireError('garbled', message('card-without-prompt'))
  const channel = await plainChannel(lane, card)
  return PromptSession.open(channel, prompt, () => channel.destroy(), login)
}

function shellOf(client: Client): Promise<ClientChannel> {
  return new Promise((resolve, reject) => {
    client.shell(terminal, (error, channel) => {
      if (!error) return resolve(channel)
      client.on('error', () => undefined)
      client.destroy()
      reject(new WireError('unreachable', plainReason(error.message)))
    })
  })
}

async function plainChannel(lane: Lane, { factory, dialect }: Spoken): Promise<Duplex> {
  const socket = await lane.connect(factory.port)
  return dialect.over === 'telnet' ? overTelnet(socket) : socket
}

const greetingMs = 5000
const greetingQuietMs = 500
const longestGreeting = 2000

/**
 * What the unit says of itself before anybody signs in: the version line of SSH, or what it greets with.
 * @throws WireError unreachable, timeout, garbled
 */
export async function greetingOf(lane: Lane, card: Spoken): Promise<string> {
  if (card.dialect.over === 'ssh') return bannerOf(lane, card.factory.port)
  const channel = await plainChannel(lane, card)
  return new Promise((resolve) => {
    let said = ''
    const end = (): void => {
      clearTimeout(late)
      clearTimeout(quiet)
      channel.destroy()
      resolve(plainReason(shownOn(said)))
    }
    const late = setTimeout(end, greetingMs)
    let quiet: NodeJS.Timeout | undefined
    channel.on('error', end)
    channel.on('close', end)
    channel.on('data', (chunk: Buffer) => {
      said = (said + chunk.toString('utf8')).slice(0, longestGreeting)
      clearTimeout(quiet)
      quiet = setTimeout(end, greetingQuietMs)
    })
    if (card.dialect.prompt?.signIn?.wakes) channel.write('\r')
  })
}
