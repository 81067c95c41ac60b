import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import { Worker } from 'node:worker_threads'
import { build } from 'esbuild'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { english } from '../../../tests/support/english'
import { patienceMs } from '../../../tests/support/patience'
import { readKitCard } from '../kit/kit-card'
import { cardBounds, parseJson, yamlFault } from './bounded-text'
import { matches, patternSchema } from './pattern'

const root = join(import.meta.dirname, '../../..')
const demoCard = readFileSync(join(root, 'data/kit/brackwater-b7.yaml'), 'utf8')

/** Texts are read in a worker: one that hangs or eats all memory ends there, and is told. */
let worker: Worker
beforeAll(async () => {
  const { outputFiles } = await build({
    stdin: {
      contents: `import { parentPort } from 'node:worker_threads'
        import { readKitCard } from './src/core/kit/kit-card.ts'
        parentPort.on('message', (text) => parentPort.postMessage(readKitCard(text).ok))`,
      resolveDir: root,
    },
    bundle: true,
    platform: 'node',
    format: 'cjs',
    write: false,
    logLevel: 'error',
  })
  worker = new Worker(outputFiles[0]?.text ?? '', { eval: true })
})
afterAll(() => worker.terminate())
function readAside(text: string): Promise<'taken' | 'refused' | 'hangs' | 'dies'> {
  return new Promise((resolve) => {
    const late = setTimeout(() => resolve('hangs'), patienceMs)
    worker.once('message', (ok) => resolve(ok ? 'taken' : 'refused'))
    worker.once('message', () => clearTimeout(late))
    worker.once('error', () => resolve('dies'))
    worker.postMessage(text)
  })
}

const many = (text: string, times: number) => text.repeat(times)
const hostile: readonly [string, string][] = [
  ['brackets within brackets', many('[', 30_000)],
  ['braces within braces', many('{a: ', 8000)],
  ['lists within lists', many('- ', 15_000)],
  ['a line that begins far in', `${many(' ', 30_000)}a: 1`],
  ['maps within maps', Array.from({ length: 240 }, (_, depth) => `${many(' ', depth)}a:`).join('\n')],
  ['tags', many('! ', 16_000)],
  ['aliases', many('*a ', 10_000)],
  ['anchors', Array.from({ length: 2000 }, (_, index) => `k${index}: &x${index} 1`).join('\n')],
  ['keys', Array.from({ length: 4000 }, (_, index) => `k${index}: 1`).join('\n')],
  ['keys in braces', `{${Array.from({ length: 3500 }, (_, index) => `k${index}: 1`).join(',')}}`],
  ['the same key', many('a: 1\n', 6000)],
  ['faults on every line', many('a: b: c\n', 4000)],
  ['closing brackets', many('}\n', 16_000)],
  ['question marks', many('? ', 16_000)],
  ['a hundred kilobytes', many('#\n', 50_000)],
  ['a hundred kilobytes of a card', `${demoCard}\n${many('# more\n', 14_000)}`],
]

describe('a kit card that was made to keep us busy', () => {
  it.each(hostile)('is refused at once: %s', async (_what, text) => {
    expect(await readAside(text)).toBe('refused')
  })

  it('is no card that comes with the program, and none that says much in comments', async () => {
    expect(yamlFault(demoCard, cardBounds)).toBeUndefined()
    expect(await readAside(`${demoCard}${many('# how we found out\n', 500)}`)).toBe('taken')
  })

  it('is named with the line and what is the most', () => {
    expect(english(yamlFault(`maker: x\nmodel: ${many('[', 40)}`, cardBounds))).toEqual({
      line: 2,
      reason: 'brackets are 16 deep at the most, and closed as often as opened',
    })
    const reading = readKitCard(`a: 1\n${many(' ', 90)}b: 2`)
    expect(english(reading.ok ? [] : reading.faults)).toEqual([
      { line: 2, field: '', reason: 'it begins 90 spaces in; 60 are the most' },
    ])
  })

  it('may hold brackets and signs in quotes and comments as it likes', () => {
    expect(
      yamlFault(`a: "[[[[[[[[[[[[[[[[[[[["\nb: '!!!!! &&&& ****'\n# [[[[[[[[[[[[[[[[[[[[[[[[\n`, cardBounds),
    ).toBeUndefined()
  })
})

describe('a regular expression of a kit card', () => {
  it('takes linear time, whatever it is', () => {
    expect(matches('^([a-z0-9-]+)+$', `${many('a', 50_000)}!`)).toBe(false)
    expect(matches('(x+x+)+y', many('x', 20_000))).toBe(false)
    expect(matches('^([a-z0-9-]+)+$', 'hall-01')).toBe(true)
  })

  it('is refused where it is none, looks around itself or is endless', () => {
    const faults = (text: string) => patternSchema.safeParse(text).error?.issues.map(({ message }) => message)
    expect(english(faults('^[a-z'))).toEqual(['"^[a-z" is not a regular expression: missing closing ]: `[a-z`'])
    expect(faults('(?=a)b')?.[0]).toContain('invalid or unsupported Perl syntax')
    expect(english(faults(many('a', 501))?.[0])).toBe('an expression has 500 characters at the most')
    expect(faults('^(?<value>[a-z]+)$')).toBeUndefined()
  })
})

describe('JSON', () => {
  it('is parsed within its bounds, and refused beyond them with the reason', () => {
    expect(parseJson('{"a":["]]]}}}","\\\\\\"[[["]}', 100)).toEqual({ ok: true, value: { a: [']]]}}}', '\\"[[['] } })
    expect(english(parseJson(many('[', 100_000), 1_000_000))).toEqual({
      ok: false,
      reason: 'it is more than 64 levels deep',
    })
    expect(english(parseJson('"aaaa"', 5))).toEqual({ ok: false, reason: 'it has 1 kB; 1 are the most' })
    expect(english(parseJson('{"a":', 100))).toMatchObject({
      ok: false,
      reason: expect.stringMatching(/^it is not JSON \(/),
    })
    expect(parseJson(`"${many('\\', 9)}`, 100).ok).toBe(false)
  })
})
