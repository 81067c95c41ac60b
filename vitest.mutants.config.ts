/**
 * What `npm run mutants` runs for each change: the tests beside the changed part, without those that try everything.
 */
import { defineConfig } from 'vitest/config'

/** Long searches over everything: what they would notice, shorter tests notice too, or ought to. */
const long = [
  'no planned block or power breaks a rule',
  'every block that is not legal is refused',
  'never crashes on damage',
  'by annealing comes closer',
  'stay off radar where they can',
  'are narrower only where',
  'has no legal block whose pieces',
  'refuses what is not legal with a reason',
  '330 radios',
  '300 radios',
  'beats the greedy colouring',
  'is the same each time',
  'is never worse than any plan',
  'is kept current by any moves',
]

/**
 * The counters that measuring puts in make the search's inner loops some twenty times slower: its short tests alone.
 */
const longForSearch = [
  ...long,
  'no planned block',
  'every block that',
  'thorough, 6 radios',
  'quick, 12 radios',
  'puts no near neighbours',
  'the search by neighbourhoods makes',
  'annealing makes no plan',
  'the search of the whole makes',
  'draws the same lots',
]

const part = process.env.AIR_MUSTER_PART ?? '{radio,regulatory,addressing,plan}'
/** What each part of the radio plan is measured by, where that is not all tests of its folder. */
const apart: Readonly<Record<string, { include: string; without: readonly string[] }>> = {
  'radio-search': { include: '{channel-field,same-plan,channels,explain*,spectral-mask}', without: longForSearch },
  'radio-problem': {
    include: '{channel-field,same-plan,channels,explain*,plan-again,search-effort,spectral-mask}',
    without: ['never crashes on damage'],
  },
}
const tests = apart[part]
const wider: Readonly<Record<string, string>> = { radio: 'plan', addressing: 'address' }

export default defineConfig({
  test: {
    isolate: false,
    // A plan is the best test of what it is made of.
    include: [
      tests
        ? `src/core/{radio/channels,plan}/${tests.include}.test.ts`
        : `src/core/{${part},${wider[part] ?? part}}/**/*.test.ts`,
    ],
    testNamePattern: new RegExp(`^(?!.*(${(tests?.without ?? long).join('|')}))`),
    testTimeout: 30_000,
    env: { AIR_MUSTER_ROOT: import.meta.dirname },
  },
})
