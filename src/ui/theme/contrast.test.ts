/** WCAG 2.2, 1.4.3: text and its ground differ by 4.5 to 1 at least, in both schemes. */
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, it } from 'vitest'

const css = readFileSync(join(import.meta.dirname, 'tokens.css'), 'utf8')
const [light = '', dark = ''] = [...css.matchAll(/:root[^{]*\{([^}]*)\}/g)].map((match) => match[1])
const colours = (block: string): Map<string, string> =>
  new Map([...block.matchAll(/--([a-z-]+): (#[0-9a-f]{6})/g)].map((match) => [match[1] ?? '', match[2] ?? '']))

function luminance(colour: string): number {
  const [red = 0, green = 0, blue = 0] = [1, 3, 5].map((at) => {
    const share = Number.parseInt(colour.slice(at, at + 2), 16) / 255
    return share <= 0.04045 ? share / 12.92 : ((share + 0.055) / 1.055) ** 2.4
  })
  return 0.2126 * red + 0.7152 * green + 0.0722 * blue
}
function contrast(a: string, b: string): number {
  const [high = 0, low = 0] = [luminance(a), luminance(b)].sort((x, y) => y - x)
  return (high + 0.05) / (low + 0.05)
}

const pairs: readonly (readonly [text: string, ground: string])[] = [
  ...['ink', 'soft', 'plum', 'leaf', 'brass', 'flare'].flatMap((text) => [
    [text, 'paper'] as const,
    [text, 'sheet'] as const,
  ]),
  ['soft', 'tab'],
  ['ink', 'plum-wash'],
  ['plum', 'plum-wash'],
  ['soft', 'plum-wash'],
  ['leaf', 'leaf-wash'],
  ['brass', 'brass-wash'],
  ['ink', 'brass-wash'],
  ['ink', 'flare-wash'],
  ['sheet', 'flare'],
  ['on-strip', 'strip'],
]

it.each([
  ['light', light],
  ['dark', dark],
])('holds in the %s scheme', (_name, block) => {
  const found = colours(block)
  for (const [text, ground] of pairs)
    expect(contrast(found.get(text) ?? '', found.get(ground) ?? ''), `${text} on ${ground}`).toBeGreaterThanOrEqual(4.5)
})
