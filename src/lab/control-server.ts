/**
 * The lab's control server: the wire's questions, and hands on the shelf. HTTP on loopback, with a token.
 */
import { timingSafeEqual } from 'node:crypto'
import { createServer, type IncomingMessage, type Server, type ServerResponse } from 'node:http'
import type { AddressInfo } from 'node:net'
import { z } from 'zod'
import { type LabAnswer, type LabAsk, type LabQuestion, labTokenHeader, labWire } from '../core/rehearsal/lab-wire'
import type { Lab } from './lab'

const handSchema = z.discriminatedUnion('do', [
  z.object({ do: z.literal('plug-in'), mac: z.string() }),
  z.object({ do: z.literal('unplug'), mac: z.string() }),
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
  await new Promise<void>((resolve, reject) => {
    server.once('error', reject)
    server.listen(port, '127.0.0.1', resolve)
  })
  return { port: (server.address() as AddressInfo).port, close: () => closeServer(server) }
}

class ControlRefusal extends Error {
  constructor(
    readonly status: number,
    message: string,
  ) {
    super(message)
  }
}

type Answers = { readonly [Q in LabQuestion]: (lab: Lab, ask: LabAsk<Q>) => LabAnswer<Q> }

const answers: Answers = {
  laptop: (lab) => lab.wire.laptop(),
  arp: (lab, { address }) => ({ macs: lab.wire.arp(address) }),
  neighbours: (lab, { subnets }) => ({ found: lab.wire.neighbours(subnets) }),
  'open-lane': (lab, target) => ({ source: lab.wire.openLane(target) }),
  'close-lane': (lab, target) => {
    lab.wire.closeLane(target)
    return {}
  },
  dial: (lab, target) => ({ loopbackPort: lab.wire.dial(target) }),
  ping: (lab, target) => ({ answers: lab.wire.ping(target) }),
  restore: (lab) => {
    lab.wire.restore()
    return {}
  },
}

async function handle(lab: Lab, token: string, request: IncomingMessage): Promise<unknown> {
  const given = Buffer.from(String(request.headers[labTokenHeader] ?? ''))
  const wanted = Buffer.from(token)
  if (given.length !== wanted.length || !timingSafeEqual(given, wanted))
    throw new ControlRefusal(403, 'the token is missing or wrong')
  const path = request.url ?? ''
  if (request.method === 'GET' && path === '/shelf') return shelf(lab)
  if (request.method !== 'POST') throw new ControlRefusal(404, 'there is nothing here')
  const ask: unknown = JSON.parse(await text(request))
  if (path === '/hand') return hand(lab, ask)
  const question = path.replace('/wire/', '')
  if (!Object.hasOwn(labWire, question)) throw new ControlRefusal(404, 'there is nothing here')
  return answer(lab, question as LabQuestion, ask)
}

function answer<Q extends LabQuestion>(lab: Lab, question: Q, ask: unknown): LabAnswer<Q> {
  return answers[question](lab, labWire[question].ask.parse(ask) as LabAsk<Q>)
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
  else {
    const { unit, server } = lab.plugged(move.mac)
    unit.pressReset(move.seconds)
    if (move.certificate === 'new') await server.renewCertificate()
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

function closeServer(server: Server): Promise<void> {
  server.closeAllConnections()
  return new Promise((resolve) => server.close(() => resolve()))
}
