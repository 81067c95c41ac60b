/**
 * Pages of a Hearth that no setting stands on: who has joined it, which fills in late, and its files: a copy of what it
 * is told to be as a download, a copy to take over, new firmware.
 *
 * Runs in a browser, from its own text: nothing outside the function is there.
 */
import type { HearthKit } from './units-page'

export interface HearthFiles {
  /** Draws the clients. */
  clients(): HTMLElement[]
  files(): HTMLElement[]
}

export function hearthMore({ words, make, button, post, ask }: HearthKit): HearthFiles {
  /** A field for a file, and what is done with what is given. */
  const fileField = (label: string, press: string, path: string): HTMLElement => {
    const field = make('input', { type: 'file', 'aria-label': label }) as HTMLInputElement
    const send = async (): Promise<void> => {
      const [file] = field.files ?? []
      if (!file) return
      const bytes = new Uint8Array(await file.arrayBuffer())
      const base64 = btoa(Array.from(bytes, (byte) => String.fromCharCode(byte)).join(''))
      await post(path, { base64 })
    }
    return make('p', { class: 'row' }, `${label} `, field, ' ', button(press, send))
  }
  return {
    clients: () => {
      const list = make('ul', { class: 'clients' }, words.looking)
      setTimeout(async () => {
        const { data } = await ask('clients')
        const found = (data as { names: string[] }).names.map((name) => make('li', {}, name))
        list.replaceChildren(...(found.length === 0 ? [words.nobody] : found))
      }, 1500)
      return [list]
    },
    files: () => [
      button(words.copy, async () => {
        const { data } = await ask('copy')
        const { name, text } = data as { name: string; text: string }
        const address = URL.createObjectURL(new Blob([text], { type: 'application/json' }))
        const link = make('a', { href: address, download: name })
        link.click()
        setTimeout(() => URL.revokeObjectURL(address), 1000)
      }),
      fileField(words.load, words.takeOver, 'load'),
      fileField(words.firmware, words.install, 'firmware'),
    ],
  }
}
