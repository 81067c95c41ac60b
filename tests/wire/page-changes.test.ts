/**
 * A page changes between showing and following: each element is found as itself, or is not found and nothing is
 * written. Whatever the change, no other element is ever taken for it.
 */
import { expect, it } from 'vitest'
import type { Described, ElementFacts } from '../../src/core/kit/page-element'
import { describe as describeElement, seek } from '../../src/core/showing/seek'
import { noSiteWords } from '../../src/core/showing/site-words'
import { inPage } from '../../src/wire/page-elements/in-page'
import { blankTab } from '../support/blank-tab'

const radio = (band: string, of: string, name: string): string => `<fieldset><legend>${band} GHz</legend>
  <label>Channel <select data-of="channel-${of}" name="${name}"><option>1</option>
  <option>6</option><option>11</option></select></label>
  <label>Power <input data-of="power-${of}" name="p${name}"></label></fieldset>`
const rows = (...names: string[]): string =>
  names.map((name) => `<tr><td>${name}</td><td><button data-of="edit-${name}">Edit</button></td></tr>`).join('')
const shown = `<h1>Radio</h1><form>
  <label>Device name <input data-of="name" name="dev"></label>
  ${radio('2.4', 'low', 'cha')}${radio('5', 'high', 'chb')}
  <table><caption>Networks</caption><tbody>${rows('Crew', 'Guests')}</tbody></table>
  <button type="button" data-of="save" name="keep">Save</button></form>`

const tab = blankTab()

/** What is seen of a page, and what each element really is. */
async function seen(html: string): Promise<{ facts: ElementFacts[]; truth: (string | null)[] }> {
  await tab().setContent(html)
  return inPage(tab(), (elements) => {
    const facts = elements.look()
    return { facts, truth: facts.map((each) => elements.element(each.seen)?.getAttribute('data-of') ?? null) }
  })
}

const of = [
  'name',
  'channel-low',
  'power-low',
  'channel-high',
  'power-high',
  'edit-Crew',
  'edit-Guests',
  'save',
] as const
type Of = (typeof of)[number]

async function described(): Promise<Map<Of, Described>> {
  const { facts, truth } = await seen(shown)
  return new Map(
    of.map((each) => {
      const own = facts[truth.indexOf(each)]
      const at = own && describeElement(facts, own, noSiteWords)
      if (!at) throw new Error(`${each} is not described`)
      return [each, at]
    }),
  )
}

const swap = (from: string | RegExp, to: string): string => {
  const changed = shown.replaceAll(from instanceof RegExp ? from : new RegExp(from, 'g'), to)
  expect(changed).not.toBe(shown)
  return changed
}

it.each<[string, () => string, lost: readonly Of[]]>([
  ['is as it was', () => shown, []],
  [
    'has its parts elsewhere',
    () => `<h1>Radio</h1><form><button type="button" data-of="save" name="keep">Save</button>
      ${radio('5', 'high', 'chb')}<hr>${radio('2.4', 'low', 'cha')}
      <label>Device name <input data-of="name" name="dev"></label>
      <table><caption>Networks</caption><tbody>${rows('Crew', 'Guests')}</tbody></table></form>`,
    [],
  ],
  ['has a label renamed', () => swap('Device name', 'Name of this box'), []],
  [
    'speaks another language',
    () =>
      shown
        .replaceAll('Channel', 'Kanal')
        .replaceAll('Power', 'Leistung')
        .replaceAll('Device name', 'Gerät')
        .replaceAll('Save', 'Speichern')
        .replaceAll('Edit', 'Ändern'),
    ['edit-Crew', 'edit-Guests'],
  ],
  [
    'has a field more',
    () => swap('<h1>Radio</h1>', '<h1>Radio</h1><label>Channel <select name="extra"></select></label>'),
    [],
  ],
  ['has a radio more', () => swap('<table>', `${radio('6', 'third', 'chc')}<table>`), []],
  ['has a choice less', () => swap('<option>6</option>', ''), []],
  ['is not there yet', () => '<h1>Radio</h1><p>Please wait</p>', of],
  ['has its rows in another order', () => swap(/<tbody>.*<\/tbody>/gs, `<tbody>${rows('Guests', 'Crew')}</tbody>`), []],
  ['has a button renamed', () => swap('>Save<', '>Apply<'), []],
  ['has a button renamed, and its name too', () => swap('name="keep">Save<', 'name="go">Apply<'), ['save']],
  [
    'asks something in a dialog more',
    () => swap('</form>', '</form><div role="dialog" aria-label="Sure"><button>Yes</button><button>No</button></div>'),
    [],
  ],
  [
    'has another tag for a button and for a field',
    () =>
      swap(
        '<button type="button" data-of="save" name="keep">Save</button>',
        '<a href="#s" data-of="save">Save</a>',
      ).replace('<input data-of="name" name="dev">', '<textarea data-of="name" name="dev"></textarea>'),
    [],
  ],
  [
    'has two of what there was one of',
    () => swap('<button type="button" data-of="save"', '<button>Save</button>$&'),
    [],
  ],
])('that %s', async (_name, changed, lost) => {
  const known = await described()
  const { facts, truth } = await seen(changed())
  const found = [...known].map(([each, at]) => {
    const { found: one } = seek(facts, at)
    return [each, one && truth[facts.indexOf(one)]] as const
  })
  expect(Object.fromEntries(found)).toEqual(
    Object.fromEntries(of.map((each) => [each, lost.includes(each) ? undefined : each])),
  )
})
