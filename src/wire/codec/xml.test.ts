import { describe, expect, it } from 'vitest'
import { WireError } from '../errors/wire-error'
import { childOf, parseXml, xmlText } from './xml'

const many = (times: number, part: (index: number) => string): string =>
  Array.from({ length: times }, (_, index) => part(index)).join(' ')

describe('XML of a unit', () => {
  it('is elements with their namespaces, attributes and text', async () => {
    const root = await parseXml(
      '<?xml version="1.0"?><a xmlns="urn:a" xmlns:b="urn:b" id="7"><b:c>x &amp; ' +
        '&#x79;<![CDATA[<z>]]></b:c><!-- no --><d xmlns="urn:d"/></a>',
    )
    expect(root).toMatchObject({ name: 'a', namespace: 'urn:a', attributes: { id: '7' } })
    expect(childOf(root, 'c', 'urn:b')?.text).toBe('x & y<z>')
    expect(childOf(root, 'd')?.namespace).toBe('urn:d')
    expect(childOf(root, 'c', 'urn:a')).toBeUndefined()
  })

  it.each([
    ['a document type', '<!DOCTYPE a [<!ENTITY x "y">]><a>&x;</a>'],
    ['an element that is not closed', '<a><b></a>'],
    ['an end without a beginning', '<a/></b><c/>'],
    ['two roots', '<a/><b/>'],
    ['no element', 'hello'],
    ['nothing', ''],
    ['a prefix that nobody declared', '<x:a/>'],
    ['nesting without end', '<a>'.repeat(200)],
    [
      'namespaces without end',
      `<a ${many(5000, (index) => `xmlns:p${index}="u"`)}>${many(4000, (index) => `<b xmlns:q${index}="u"/>`)}</a>`,
    ],
    [
      'namespaces without end, one to a level',
      `${many(60, (index) => `<a xmlns:p${index}="u" xmlns:q${index}="u">`)}${many(60, () => '</a>')}`,
    ],
    ['attributes without end', `<a ${many(300, (index) => `p${index}="u"`)}/>`],
    ['elements without end', `<a>${'<b/>'.repeat(100_001)}</a>`],
  ])('is refused with %s', async (_what, text) => {
    await expect(parseXml(text)).rejects.toThrow(WireError)
  })

  it('knows no entities but those of XML: another is refused, and nothing is fetched for it', async () => {
    await expect(parseXml('<a>&xxe;</a>')).rejects.toMatchObject({ kind: 'garbled' })
    expect((await parseXml('<a>&lt;&#65;</a>')).text).toBe('<A')
  })

  it('writes text so that it stays text', async () => {
    const text = `</a>&<b c="d">'\r\n\tÜnï東京`
    expect((await parseXml(`<a x="${xmlText(text)}">${xmlText(text)}</a>`)).text).toBe(text)
    expect(() => xmlText('\u0007')).toThrow(/rejected/)
  })
})
