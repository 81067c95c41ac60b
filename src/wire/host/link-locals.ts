/**
 * Link-local addresses on several interfaces of one wire: what is untagged, and each VLAN that is worked with its tag.
 */
import { LinkLocal } from './link-local'

export interface FoundByLink {
  /** With its zone: `fe80::…%eth0`. */
  readonly address: string
  /** The laptop's own on that interface. */
  readonly own: string | undefined
}

export class LinkLocals {
  readonly #byInterface = new Map<string, LinkLocal>()

  /** @param names  of the interfaces: the wired one first */
  on(names: readonly string[]): void {
    for (const name of this.#byInterface.keys()) if (!names.includes(name)) this.#byInterface.delete(name)
    for (const name of names) if (!this.#byInterface.has(name)) this.#byInterface.set(name, new LinkLocal(name))
  }

  /** Where it answers in a VLAN as well, that is where it is: what was untagged may only be remembered. */
  async find(mac: string): Promise<FoundByLink | undefined> {
    const found = await Promise.all(
      [...this.#byInterface.values()].map(async (link) => {
        const address = await link.find(mac)
        return address === undefined ? undefined : { address, own: link.own() }
      }),
    )
    return found.findLast((each) => each !== undefined)
  }

  /** MACs of everybody who answers. */
  async everybody(): Promise<string[]> {
    const all = await Promise.all([...this.#byInterface.values()].map((link) => link.everybody()))
    return [...new Set(all.flatMap((macs) => [...macs.keys()]))]
  }
}
