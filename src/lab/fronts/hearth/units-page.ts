/**
 * The page of a Hearth with the units that have found it: a row for each, taken in, set in a dialog, let go.
 *
 * Runs in a browser, from its own text: nothing outside the function is there.
 */
import type { HearthRadio, HearthUnit } from './view'
import type { HearthWords } from './words'

interface Field {
  readonly row: HTMLElement
  readonly value: () => string
}
/** What the page around it draws with. */
export interface HearthKit {
  readonly words: HearthWords
  readonly make: (tag: string, attributes?: Record<string, string>, ...children: (Node | string)[]) => HTMLElement
  readonly button: (text: string, act: () => unknown) => HTMLElement
  readonly typed: (label: string, value: string) => Field
  readonly picked: (label: string, value: string, choices: readonly string[]) => Field
  readonly inOrder: (...fields: Field[]) => HTMLElement[]
  readonly dialog: (heading: string, ...children: (Node | string)[]) => { close: () => void }
  readonly radioPart: (radio: HearthRadio) => { readonly part: HTMLElement; readonly value: () => unknown }
  readonly post: (path: string, body: unknown, then?: () => unknown) => Promise<void>
  readonly draw: () => Promise<void>
  readonly ask: (path: string, body?: unknown) => Promise<{ status: number; data: unknown }>
}

export function hearthUnits(units: readonly HearthUnit[], kit: HearthKit): HTMLElement[] {
  const { words, make, button, typed, picked, inOrder, dialog, radioPart, post, draw } = kit
  const edit = (unit: HearthUnit): void => {
    const fields = {
      name: typed(words.unitName, unit.name),
      spot: typed(words.spot, unit.spot),
      way: picked(words.way, unit.way, [words.given, words.fixed]),
      address: typed(words.address, unit.address),
      mask: typed(words.mask, unit.mask),
      router: typed(words.router, unit.router),
    }
    const radios = unit.radios.map(radioPart)
    const opened = dialog(
      `${words.edit}: ${unit.name || unit.mac}`,
      ...inOrder(...Object.values(fields)),
      ...radios.map(({ part }) => part),
      button(words.close, () => opened.close()),
      button(words.keep, async () => {
        const values = Object.fromEntries(Object.entries(fields).map(([name, field]) => [name, field.value()]))
        const way = values.way === words.fixed ? 'own' : 'given'
        const body = { mac: unit.mac, ...values, way, radios: radios.map(({ value }) => value()) }
        await post('unit', body, () => {
          opened.close()
          return draw()
        })
      }),
    )
  }
  const rows = units.map((unit) =>
    make(
      'tr',
      {},
      make('td', {}, unit.name),
      make('td', {}, unit.mac.toUpperCase().replaceAll(':', '-')),
      make('td', {}, unit.state),
      make(
        'td',
        {},
        ...(unit.taken
          ? [button(words.edit, () => edit(unit)), button(words.remove, () => post('letgo', { mac: unit.mac }))]
          : [button(words.takeIn, () => post('takein', { mac: unit.mac }))]),
      ),
    ),
  )
  const body = make('tbody', {}, ...(words.turned ? rows.reverse() : rows))
  const head = [words.unitName, words.hardware, words.standing, ''].map((text) => make('th', {}, text))
  return [make('table', {}, make('thead', {}, make('tr', {}, ...head)), body)]
}
