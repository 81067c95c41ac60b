/** What a terminal is to show: kept until one is there to show it. */
export class Prints {
  #waiting: string[] = []
  #show: ((text: string) => void) | undefined

  push(text: string): void {
    if (this.#show) this.#show(text)
    else this.#waiting.push(text)
  }

  /** @returns the way to show no more */
  shownBy(show: (text: string) => void): () => void {
    this.#show = show
    for (const text of this.#waiting.splice(0)) show(text)
    return () => {
      this.#show = undefined
    }
  }
}
