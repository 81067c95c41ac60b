import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'
import { patienceMs } from './tests/support/patience'

/** `npm run test:long` holds endurance: every moment of every family, many more tries, machines in full. */
const isLong = process.env.AIR_MUSTER_TESTS === 'long'
/** Files that are long as a whole. */
const whole = ['django', 'transmission', 'deluge', 'wordpress'].map((name) => `tests/real/shown-${name}.test.ts`)
/** Files with long parts: what of them is which is said by tests/support/long.ts. */
const long = [
  'src/**/hostile.test.ts',
  'src/core/plan/plan-again.test.ts',
  'src/wire/codec/codecs.test.ts',
  'src/wire/dialect/prompt/reading.test.ts',
  'tests/real/access-points.test.ts',
  'tests/real/hearth.test.ts',
  'tests/real/tagged-vlan.test.ts',
  ...[
    'again',
    'controller',
    'controller-pages',
    'controller-prompt',
    'crash',
    'demo',
    'families',
    'firmware',
    'full-disk',
    'hearth',
    'managed',
    'pages',
    'prompt',
    'radar',
    'settings',
    'showing',
    'shown-units',
  ].map((name) => `tests/run/${name}.test.ts`),
  'tests/e2e/bench-site.test.ts',
  'tests/e2e/desk-site.test.ts',
  'tests/e2e/joins.test.ts',
  'tests/simulation/simulation.test.ts',
  'tests/store/mutated.test.ts',
  'tests/store/ssh-key.test.ts',
  'tests/store/whole.test.ts',
  'tests/wire/hearth-files.test.ts',
  'tests/wire/helper.test.ts',
  'tests/wire/hosts.test.ts',
  'tests/wire/network-rows.test.ts',
  'tests/wire/showing.test.ts',
  'tests/wire/table-pages.test.ts',
  'tests/wire/unit-rows.test.ts',
]

/** Those that take longest, by the processor time that they took. */
const longest = [
  ...['run/families', 'run/showing', 'wire/showing', 'real/shown-transmission', 'real/shown-deluge', 'run/hearth'],
  ...['e2e/decide', 'run/settings', 'run/demo', 'e2e/bench-site', 'e2e/desk-site', 'e2e/strangers', 'wire/hosts'],
  ...['run/managed', 'run/muster', 'wire/helper', 'run/again', 'run/pages', 'run/faults', 'run/runner', 'e2e/joins'],
  ...['wire/laptop', 'cli/jobs', 'store/jobs', 'run/full-disk', 'run/radar', 'wire/pages', 'run/crash'],
].map((name) => `tests/${name}.test.ts`)

/** The longest first, so that none of them is left to run alone at the end. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rest = await super.sort(files)
    const place = ({ moduleId }: TestSpecification): number => {
      const at = longest.findIndex((path) => moduleId.endsWith(path))
      return at === -1 ? longest.length : at
    }
    return rest.toSorted((a, b) => place(a) - place(b))
  }
}

export default defineConfig({
  test: {
    include: isLong ? [...long, ...whole] : ['src/**/*.test.ts', 'tests/**/*.test.ts'],
    exclude: isLong ? [] : whole,
    globalSetup: ['tests/support/database-server.ts', 'tests/support/shared-browser.ts'],
    // Nobody is late on a busy machine: a test ends by time only where nothing moves any more.
    testTimeout: 2 * patienceMs,
    hookTimeout: patienceMs,
    expect: { poll: { timeout: patienceMs, interval: 50 } },
    // More than there are processors: most of what takes long waits for stand-ins.
    maxWorkers: 4,
    sequence: { sequencer: LongestFirst },
    isolate: false,
    env: { AIR_MUSTER_ROOT: import.meta.dirname },
  },
})
