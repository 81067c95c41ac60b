/**
 * The lab's control server: the wire's questions, and hands on the shelf. HTTP on loopback, with a token.
 */
import { timingSafeEqual } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import type { Duplex } from 'node:stream'
import { z } from 'zod'
import type { Answering } from '../core/questions/question'
import { serveQuestions } from '../core/questions/serve'
import { type LabWire, labTokenHeader, labWire, labWireProtocol } from '../core/rehearsal/lab-wire'
import type { Lab } from './lab'

const handSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('plug-in'), mac: z.string() }),
  z.object({ do: z.literal('unplug'), mac: z.string() }),
  z.object({ do: z.literal('radar'), mac: z.string(), band: z.enum(['2.4', '5', '6']) }),
  z.object({
    do: z.literal('press-reset'),
    mac: z.string(),
    seconds: z.number(),
    certificate: z.enum(['kept', 'new']).default('kept'),
  }),
])

export interface ControlServer {
  readonly port: number
  close(): Promise<void>
}

/** @param port  where it listens; 0 for any that is free */
export async function serveControl(lab: Lab, token: string, port = 0): Promise<ControlServer> {
  const server = createServer((request, response) => {
    handle(lab, token, request)
      .then((value) => send(response, 200, value))
      .catch((error: unknown) =>
        send(response, error instanceof ControlRefusal ? error.status : 400, {
          reason: error instanceof Error ? error.message : 'not understood',
        }),
      )
  })
  const wires = new Set<Duplex>()
  server.on('upgrade', (request, socket) => {
    if (!holdsToken(token, request) || request.url !== '/wire' || request.headers.upgrade !== labWireProtocol) {
      socket.end('HTTP/1.1 403 Forbidden\r\nconnection: close\r\ncontent-length: 0\r\n\r\n')
      return
    }
    wires.add(socket)
    socket.once('close', () => wires.delete(socket))
    serveWire(lab, socket)
  })
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', resolve)
  })
  return { port: (server.address() as AddressInfo).port, close: () => closeServer(server, wires) }
}

/** Answers the wire's questions on a connection that was upgraded. */
function serveWire(lab: Lab, socket: Duplex): void {
  serveQuestions(socket, labWire, answersOf(lab))
  socket.write(`HTTP/1.1 101 Switching Protocols\r\nconnection: Upgrade\r\nupgrade: ${labWireProtocol}\r\n\r\n`)
}

class ControlRefusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}

const answersOf = ({ wire }: Lab): Answering<LabWire> => ({
  laptop: () => wire.laptop(),
  arp: ({ address }) => ({ macs: wire.arp(address) }),
  neighbours: ({ subnets }) => ({ found: wire.neighbours(subnets) }),
  'on-link': () => ({ found: wire.onLink(), introductions: wire.introductions(), servers: wire.servers() }),
  'keep-off': ({ ranges }) => {
    wire.keepOff(ranges)
    return {}
  },
  'open-lane': (target) => ({ source: wire.openLane(target) }),
  'close-lane': (target) => {
    wire.closeLane(target)
    return {}
  },
  dial: (target) => ({ loopbackPort: wire.dial(target) }),
  datagrams: (target) => ({ loopbackPort: wire.datagrams(target) }),
  ping: (target) => ({ answers: wire.ping(target) }),
  restore: () => {
    wire.restore()
    return {}
  },
})

function holdsToken(token: string, request: IncomingMessage): boolean {
  const given = Buffer.from(String(request.headers[labTokenHeader] ?? ''))
  const expected = Buffer.from(token)
  return given.length === expected.length && timingSafeEqual(given, expected)
}

async function handle(lab: Lab, token: string, request: IncomingMessage): Promise<unknown> {
  if (!holdsToken(token, request)) throw new ControlRefusal(403, 'the token is missing or wrong')
  const path = request.url ?? ''
  if (request.method === 'GET' && path === '/shelf') return shelf(lab)
  if (request.method !== 'POST') throw new ControlRefusal(404, 'there is nothing here')
  const ask: unknown = JSON.parse(await text(request))
  if (path === '/hand') return hand(lab, ask)
  throw new ControlRefusal(404, 'there is nothing here')
}

function shelf(lab: Lab): unknown {
  return {
    pace: lab.pace,
    units: lab.units().map((unit) => ({
      mac: unit.identity.mac,
      model: `${unit.sheet.maker} ${unit.sheet.model}`,
      phase: unit.phase,
      address: unit.address,
      lights: unit.lights,
      radios: unit.air().map(({ radio, condition, networks }) => ({
        band: radio.band,
        condition,
        channel: radio.channel,
        width: radio.width,
        power: radio.power,
        networks: networks.map(({ name, mode }) => ({ ssid: name, security: mode })),
      })),
    })),
    air: { samples: lab.air.samples, heard: lab.air.heard, everOpen: lab.air.everOpen },
  }
}

async function hand(lab: Lab, ask: unknown): Promise<unknown> {
  const move = handSchema.parse(ask)
  if (move.do === 'plug-in') lab.plugIn(move.mac)
  else if (move.do === 'unplug') lab.unplug(move.mac)
  else if (move.do === 'radar') lab.plugged(move.mac).unit.hearRadar(move.band)
  else {
    const { unit, front } = lab.plugged(move.mac)
    unit.pressReset(move.seconds)
    if (move.certificate === 'new') await front.renewIdentity()
  }
  return {}
}

async function text(request: IncomingMessage): Promise<string> {
  const chunks: Buffer[] = []
  let size = 0
  for await (const chunk of request as AsyncIterable<Buffer>) {
    size += chunk.length
    if (size > 64 * 1024) throw new ControlRefusal(413, 'the request is too large')
    chunks.push(chunk)
  }
  return Buffer.concat(chunks).toString('utf8')
}

function send(response: ServerResponse, status: number, value: unknown): void {
  response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify(value))
}

function closeServer(server: Server, wires: ReadonlySet<Duplex>): Promise<void> {
  server.closeAllConnections()
  for (const wire of wires) wire.destroy()
  return new Promise((resolve) => server.close(() => resolve()))
}
