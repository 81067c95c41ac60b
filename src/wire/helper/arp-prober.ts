/**
 * Asks by ARP who is there, without a tag and in every VLAN that the laptop reaches. Who shares an address with others
 * answers beside them: all are told apart by their MAC. Bounded in probes a second, however many ask at once; whoever
 * asks for the same address meanwhile has one answer.
 */

import { setTimeout as pause } from 'node:timers/promises'
import { hostsOf, parseCidr } from '../../core/address/ipv4'
import { messageText } from '../../core/message/message'
import { arpProbe, readArp } from '../codec/arp'
import { etherTypes, readFrame, withTag } from '../codec/ethernet'
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
const mostPlaces = 4096

interface Probe {
  readonly address: string
  readonly vlan: number | null
}

export class ArpProber {
  readonly #port: FramePort
  readonly #mac: string
  readonly #asking = new Map<string, Promise<string[]>>()
  #queue: Probe[] = []
  #sending: NodeJS.Timeout | undefined
  #vlans: readonly number[] = []
  /** By MAC and address: the VLAN in which it answered last. */
  readonly #places = new Map<string, number | null>()

  /** @param mac  of the interface */
  constructor(port: FramePort, mac: string) {
    this.#port = port
    this.#mac = mac
  }

  /** VLANs in which everybody is asked as well, with their tag. */
  askIn(vlans: readonly number[]): void {
    this.#vlans = vlans
  }

  /**
   * VLAN in which this host answers at this address, null for untagged. Where it has not answered yet, it is asked.
   */
  async vlanOf(mac: string, address: string): Promise<number | null> {
    if (this.#vlans.length === 0) return null
    const key = placeKey({ mac, address })
    if (!this.#places.has(key)) await this.who(address)
    return this.#places.get(key) ?? null
  }

  /** MACs of everybody who has this address; our own machine is not among them. */
  who(address: string): Promise<string[]> {
    const asking =
      this.#asking.get(address) ??
      this.#ask([address])
        .then((found) => [...new Set(found.map(({ mac }) => mac))])
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
    const asked = new Set(addresses)
    const found = new Map<string, ArpAnswer & Pick<Probe, 'vlan'>>()
    const stop = this.#port.listen((bytes) => {
      const answer = answerIn(bytes)
      if (!answer || !asked.has(answer.address)) return
      const key = placeKey(answer)
      // A host may answer by all of its interfaces: it is where its tag is.
      found.set(key, { ...answer, vlan: answer.vlan ?? found.get(key)?.vlan ?? null })
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
    for (const [key, { vlan }] of found) this.#remember(key, vlan)
    return [...found.values()].map(({ mac, address }) => ({ mac, address }))
  }

  #remember(key: string, vlan: number | null): void {
    this.#places.delete(key)
    this.#places.set(key, vlan)
    if (this.#places.size > mostPlaces) this.#places.delete(this.#places.keys().next().value ?? '')
  }

  /** Resolves when the last of them has left. */
  #probe(addresses: readonly string[]): Promise<void> {
    for (const vlan of [null, ...this.#vlans]) this.#queue.push(...addresses.map((address) => ({ address, vlan })))
    this.#sending ??= setInterval(() => this.#sendSome(), (1000 * burst) / probesPerSecond)
    const behind = this.#queue.length
    this.#sendSome()
    return pause((behind / probesPerSecond) * 1000)
  }

  #sendSome(): void {
    for (const { address, vlan } of this.#queue.splice(0, burst))
      this.#port.send(withTag(arpProbe(this.#mac, address), vlan))
    if (this.#queue.length > 0) return
    clearInterval(this.#sending)
    this.#sending = undefined
  }
}

const placeKey = ({ mac, address }: ArpAnswer): string => `${mac} ${address}`

function answerIn(bytes: Buffer): (ArpAnswer & Pick<Probe, 'vlan'>) | undefined {
  const frame = readFrame(bytes)
  const arp = frame?.type === etherTypes.arp ? readArp(frame.payload) : undefined
  if (!frame || arp?.kind !== 'reply') return undefined
  return { mac: arp.senderMac, address: arp.senderAddress, vlan: frame.vlan }
}

function hostsToAsk(cidr: string): string[] {
  const subnet = parseCidr(cidr)
  if (!subnet) return []
  if (subnet.lastHost - subnet.firstHost >= largestSubnet)
    throw new RangeError(messageText('subnet-too-large', { subnet: cidr }))
  return hostsOf(subnet)
}
