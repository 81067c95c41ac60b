/** A picture of a unit's page that is kept: what holds a secret is blank in it, wherever it stands. */
import { describe, expect, it } from 'vitest'
import { type PagePicture, pictureOf } from '../../src/wire/page-elements/picture'
import { blankTab } from '../support/blank-tab'

/** Large and black where it is seen at all: a picture in which it can be read is another picture. */
const secret = '\u2588\u2588\u2588\u2588secret'

const tab = blankTab()

async function picture(html: string, secrets: readonly string[]): Promise<PagePicture | undefined> {
  await tab().setContent(html)
  return pictureOf(tab(), secrets)
}
const bytesOf = (taken: PagePicture | undefined): string => Buffer.from(taken?.jpeg ?? []).toString('base64')

/** Hides by itself, in the page's own way, what a picture has to leave out. */
const hidden = 'style="visibility:hidden"'
const places: readonly (readonly [string, (style: string) => string])[] = [
  ['words', (style) => `<h1>Radio</h1><p ${style}>The key is ${secret}.</p><p>Channel 36</p>`],
  ['a field', (style) => `<h1>Radio</h1><input ${style} value="${secret}"><p>Channel 36</p>`],
  ['a field of lines', (style) => `<h1>Radio</h1><textarea ${style}>psk=${secret}</textarea><p>Channel 36</p>`],
  ['a hint', (style) => `<h1>Radio</h1><input ${style} placeholder="${secret}"><p>Channel 36</p>`],
  [
    'a frame',
    (style) =>
      `<h1>Radio</h1><iframe srcdoc='<b ${style.replaceAll("'", '"')}>${secret}</b>'></iframe><p>Channel 36</p>`,
  ],
  [
    'a part with a tree of its own',
    (style) =>
      `<h1>Radio</h1><div ${style}><template shadowrootmode="open"><b>${secret}</b></template></div><p>Channel 36</p>`,
  ],
]

describe('a secret', () => {
  it.each(places)('in %s is blank, and all else is seen', async (_where, page) => {
    const blank = await picture(page(hidden), [])
    const taken = await picture(page(''), [secret])
    expect(taken?.words).toEqual(expect.arrayContaining(['Radio', 'Channel 36']))
    expect(taken?.words.join()).not.toContain('secret')
    expect(bytesOf(taken)).toBe(bytesOf(blank))
    expect(bytesOf(await picture(page(''), []))).not.toBe(bytesOf(blank))
  })

  it('that nobody knows of is blank in a password field', async () => {
    const page = (style: string): string => `<h1>Sign in</h1><input type="password" ${style} value="never told">`
    expect(bytesOf(await picture(page(''), []))).toBe(bytesOf(await picture(page(hidden), [])))
  })

  it('that a page draws again and again is on no picture: there is none', async () => {
    const page = `<p></p><script>
      setInterval(() => document.body.replaceChildren(
        Object.assign(document.createElement('p'), { textContent: '${secret}' })))
    </script>`
    expect(await picture(page, [secret])).toBeUndefined()
  })
})

it('is not taken of a page that is longer than can be looked through', async () => {
  expect(await picture(`<p>${'long '.repeat(300_000)}</p>`, [secret])).toBeUndefined()
})
