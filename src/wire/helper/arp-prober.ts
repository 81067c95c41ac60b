/**
 * Asks by ARP who is there. Who shares an address with others answers beside them: all are told apart by their MAC.
 * Bounded in probes a second, however many ask at once; whoever asks for the same address meanwhile has one answer.
 */
import { setTimeout as pause } from 'node:timers/promises'
import { hostsOf, parseCidr } from '../../core/addressing/ipv4'
import { arpProbe, readArp } from '../codec/arp'
import { etherTypes, readFrame } from '../codec/ethernet'
import type { FramePort } from './frame-port'

export interface ArpAnswer {
  readonly mac: string
  readonly address: string
}

/** Probes a second at the most: a small unit's processor takes every one of them. */
const probesPerSecond = 1000
const burst = 20
/** A probe or its answer may get lost: each address is asked twice. */
const rounds = 2
const betweenRoundsMs = 100
/** How long answers are waited for after the last probe, ms. */
const patienceMs = 200
/** Largest subnet that is asked whole, addresses. */
const largestSubnet = 4096

export class ArpProber {
  readonly #port: FramePort
  readonly #mac: string
  readonly #asking = new Map<string, Promise<string[]>>()
  #queue: string[] = []
  #sending: NodeJS.Timeout | undefined

  /** @param mac  of the interface */
  constructor(port: FramePort, mac: string) {
    this.#port = port
    this.#mac = mac
  }

  /** MACs of everybody who has this address; our own machine is not among them. */
  who(address: string): Promise<string[]> {
    const asking =
      this.#asking.get(address) ??
      this.#ask([address])
        .then((found) => found.map(({ mac }) => mac))
        .finally(() => this.#asking.delete(address))
    this.#asking.set(address, asking)
    return asking
  }

  /** Everybody in these subnets. @throws RangeError where one is too large to be asked whole */
  async everybody(subnets: readonly string[]): Promise<ArpAnswer[]> {
    const addresses = new Set(subnets.flatMap(hostsToAsk))
    return this.#ask([...addresses])
  }

  async #ask(addresses: readonly string[]): Promise<ArpAnswer[]> {
    const found = new Map<string, ArpAnswer>()
    const stop = this.#port.listen((bytes) => {
      const answer = answerIn(bytes)
      if (answer) found.set(`${answer.mac} ${answer.address}`, answer)
    })
    try {
      for (let round = 0; round < rounds; round += 1) {
        if (round > 0) await pause(betweenRoundsMs)
        await this.#probe(addresses)
      }
      await pause(patienceMs)
    } finally {
      stop()
    }
    const asked = new Set(addresses)
    return [...found.values()].filter(({ address }) => asked.has(address))
  }

  /** Resolves when the last of them has left. */
  #probe(addresses: readonly string[]): Promise<void> {
    this.#queue.push(...addresses)
    this.#sending ??= setInterval(() => this.#sendSome(), (1000 * burst) / probesPerSecond)
    const behind = this.#queue.length
    this.#sendSome()
    return pause((behind / probesPerSecond) * 1000)
  }

  #sendSome(): void {
    for (const address of this.#queue.splice(0, burst)) this.#port.send(arpProbe(this.#mac, address))
    if (this.#queue.length > 0) return
    clearInterval(this.#sending)
    this.#sending = undefined
  }
}

function answerIn(bytes: Buffer): ArpAnswer | undefined {
  const frame = readFrame(bytes)
  const arp = frame?.type === etherTypes.arp ? readArp(frame.payload) : undefined
  return arp?.kind === 'reply' ? { mac: arp.senderMac, address: arp.senderAddress } : undefined
}

function hostsToAsk(cidr: string): string[] {
  const subnet = parseCidr(cidr)
  if (!subnet) return []
  if (subnet.lastHost - subnet.firstHost >= largestSubnet)
    throw new RangeError(`${cidr} is too large to be asked address by address`)
  return hostsOf(subnet)
}
