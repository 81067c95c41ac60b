/**
 * Interfaces for tagged VLANs (IEEE 802.1Q) on top of the wired one: what is managed in a VLAN is reached by them. One
 * that the laptop has of its own is used; else it is added, journaled before, and taken away like everything here.
 */

import { writeFile } from 'node:fs/promises'
import { messageText } from '../../core/message/message'
import { interfaces, ipBatch, vlansOn } from './ip-command'
import type { Ledger } from './ledger'

export interface VlanLink {
  readonly vlan: number
  readonly dev: string
  readonly origin: 'own' | 'added'
}

export class VlanLinks {
  readonly #parent: string
  readonly #ledger: Ledger
  #links: readonly VlanLink[] = []
  #last: Promise<void> = Promise.resolve()

  /** @param parent  the wired interface */
  constructor(parent: string, ledger: Ledger) {
    this.#parent = parent
    this.#ledger = ledger
  }

  get all(): readonly VlanLink[] {
    return this.#links
  }

  /** @throws IpRefused  the kernel has no tagged VLANs, or will not have this one */
  async reach(vlans: readonly number[]): Promise<void> {
    // One after the other: two that ask for the same one have one.
    const turn = this.#last.then(async () => {
      for (const vlan of new Set(vlans))
        if (!this.#links.some((link) => link.vlan === vlan)) this.#links = [...this.#links, await this.#linkFor(vlan)]
    })
    this.#last = turn.catch(() => undefined)
    return turn
  }

  /** They were taken away with everything else. */
  forget(): void {
    this.#links = []
  }

  /** The interface for a VLAN, the wired one itself for null. */
  devOf(vlan: number | null): string {
    return this.#links.find((link) => link.vlan === vlan)?.dev ?? this.#parent
  }

  async #linkFor(vlan: number): Promise<VlanLink> {
    const own = vlansOn(this.#parent, await interfaces()).find((each) => each.vlan === vlan)
    if (own?.flags.includes('UP')) return { vlan, dev: own.ifname, origin: 'own' }
    if (own) throw new Error(messageText('interface-down', { name: own.ifname, name2: own.ifname }))
    const dev = `muster${vlan}`
    const additions = [{ kind: 'link', dev }] as const
    this.#ledger.add(additions)
    try {
      await ipBatch([`link add link ${this.#parent} name ${dev} type vlan id ${vlan}`])
      // A router of that VLAN must not become the laptop's way to the Internet.
      await writeFile(`/proc/sys/net/ipv6/conf/${dev}/accept_ra`, '0').catch(() => undefined)
      await ipBatch([`link set dev ${dev} up`])
    } catch (error) {
      await this.#ledger.remove(additions)
      throw error
    }
    return { vlan, dev, origin: 'added' }
  }
}
