import { describe, expect, it } from 'vitest'
import { parsed } from '../dialect/pages/parsed'
import { WireError } from '../errors/wire-error'
import { inSlices } from './in-slices'
import { parseXml } from './xml'

/** How often others had their turn while something was done. */
async function turnsDuring(work: Promise<unknown>): Promise<number> {
  let turns = 0
  let isOver = false
  const count = (): void => {
    turns += 1
    if (!isOver) setImmediate(count)
  }
  setImmediate(count)
  await work.finally(() => {
    isOver = true
  })
  return turns
}

const items = Array.from({ length: 60_000 }, (_, index) => `<i n="${index}"/>&amp;é<b>東京 ${index}</b>`)

describe('a long text of a unit', () => {
  it('is read whole, wherever it is cut', async () => {
    const root = await parseXml(`<r>${items.slice(0, 30_000).join('')}</r>`)
    expect(root.children).toHaveLength(60_000)
    expect(root.text).toBe('&é'.repeat(30_000))
    expect(root.children[59_999]?.text).toBe('東京 29999')
  })

  it.each([
    ['XML', () => parseXml(`<r>${items.slice(0, 40_000).join('')}</r>`)],
    ['a page', () => parsed(items.join('').replaceAll('/>', '></i>'))],
  ])('leaves others their turn while it is read as %s', async (_what, reading) => {
    expect(await turnsDuring(reading())).toBeGreaterThan(20)
  })

  it('is given up where it takes too much work', async () => {
    let clock = 0
    let pieces = 0
    const slow = {
      write: () => {
        pieces += 1
        clock += 700
      },
      end: () => undefined,
    }
    await expect(inSlices(items.join(''), slow, () => clock)).rejects.toThrow(WireError)
    expect(pieces).toBe(5)
    await expect(inSlices('short', slow, () => clock)).resolves.toBeUndefined()
  })

  it('is refused where an element has attributes without end', async () => {
    const attributes = Array.from({ length: 200_000 }, (_, index) => `a${index}`).join(' ')
    await expect(parsed(`<p ${attributes}>`)).rejects.toThrow(WireError)
  })
})
