import type { Hand } from '../../core/showing/window-talk'

/** Sends hands in their order, one request at a time; movements that nobody has sent yet become one. */
export class HandQueue {
  readonly #url: string
  #waiting: Hand[] = []
  #isSending = false

  /** @param onLost  told when the window is gone */
  constructor(
    url: string,
    readonly onLost: () => void,
  ) {
    this.#url = url
  }

  push(hand: Hand): void {
    const last = this.#waiting.at(-1)
    const isMove = hand.kind === 'pointer' && hand.phase === 'move'
    if (isMove && last?.kind === 'pointer' && last.phase === 'move') this.#waiting.pop()
    if (hand.kind === 'wheel' && last?.kind === 'wheel') {
      this.#waiting.pop()
      this.#waiting.push({ ...hand, dx: last.dx + hand.dx, dy: last.dy + hand.dy })
    } else this.#waiting.push(hand)
    void this.#send()
  }

  async #send(): Promise<void> {
    if (this.#isSending) return
    this.#isSending = true
    while (this.#waiting.length > 0) {
      const hands = this.#waiting.splice(0)
      const reply = await fetch(this.#url, { method: 'POST', body: JSON.stringify(hands) }).catch(() => undefined)
      if (!reply?.ok) this.onLost()
    }
    this.#isSending = false
  }
}
