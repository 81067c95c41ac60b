/**
 * A lane of a person's own: a port of this machine that leads to the pages of one unit, for a browser that runs here.
 * It listens at a loopback address that cannot be guessed and that no other unit has: cookies ignore ports.
 */
import { randomBytes } from 'node:crypto'
import type { Lane } from '../../wire/host/host'
import { type LeadingPort, leadTo } from '../../wire/host/lead-to'
import type { WindowDoor } from '../../wire/window/unit-window'

export class OwnLane {
  readonly #lane: Lane
  readonly #door: WindowDoor
  #leading: Promise<LeadingPort> | undefined

  constructor(lane: Lane, door: WindowDoor) {
    this.#lane = lane
    this.#door = door
  }

  /** @param used  told each time that the browser connects @returns where it finds the pages */
  async open(used: () => void): Promise<string> {
    const { scheme, port: own } = this.#door
    const [a = 0, b = 0, c = 0] = randomBytes(3)
    const lead = (address: string): Promise<LeadingPort> => leadTo(this.#lane, own, address, used)
    // Some systems have one address of loopback alone.
    this.#leading ??= lead(`127.${a}.${b}.${1 + (c % 254)}`).catch(() => lead('127.0.0.1'))
    const { address, port } = await this.#leading
    return `${scheme}://${address}:${port}/`
  }

  close(): void {
    this.#leading?.then(
      (leading) => leading.close(),
      () => undefined,
    )
  }
}
