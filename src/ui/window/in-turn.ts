/** One after the other, and never an old one: while one is worked on, of those that come only the newest waits. */
export function newestInTurn<T>(work: (value: T) => Promise<void>): (value: T) => void {
  let waiting: { readonly value: T } | undefined
  let isBusy = false
  const goOn = async (): Promise<void> => {
    if (isBusy) return
    isBusy = true
    while (waiting) {
      const { value } = waiting
      waiting = undefined
      // One that cannot be worked on is left out; the next may be better.
      await work(value).catch(() => undefined)
    }
    isBusy = false
  }
  return (value) => {
    waiting = { value }
    void goOn()
  }
}
