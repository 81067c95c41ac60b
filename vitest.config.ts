import { defineConfig } from 'vitest/config'
import { BaseSequencer, type TestSpecification } from 'vitest/node'

/** Those that take more than half a minute, by the seconds that they took. */
const long = [
  'tests/run/managed.test.ts',
  'tests/run/settings.test.ts',
  'tests/wire/hosts.test.ts',
  'tests/e2e/tabs.test.ts',
  'tests/cli/jobs.test.ts',
  'tests/run/families.test.ts',
  'tests/e2e/decide.test.ts',
  'tests/run/faults.test.ts',
  'tests/run/full-disk.test.ts',
  'tests/wire/helper.test.ts',
  'tests/run/runner.test.ts',
  'tests/e2e/frame.test.ts',
  'tests/e2e/options.test.ts',
  'tests/run/pages.test.ts',
  'tests/e2e/browser.test.ts',
  'tests/e2e/accessible.test.ts',
  'tests/run/muster.test.ts',
  'tests/run/crash.test.ts',
  'tests/run/prompt.test.ts',
  'tests/run/demo.test.ts',
  'tests/run/again.test.ts',
  'tests/e2e/strangers.test.ts',
  'tests/real/tagged-vlan.test.ts',
  'src/wire/dialect/pages/hostile.test.ts',
  'tests/run/controller.test.ts',
  'tests/e2e/joins.test.ts',
  'tests/store/jobs.test.ts',
  'tests/wire/pages.test.ts',
  'tests/run/radar.test.ts',
]

/** The longest first, so that none of them is left to run alone at the end. */
class LongestFirst extends BaseSequencer {
  override async sort(files: TestSpecification[]): Promise<TestSpecification[]> {
    const rest = await super.sort(files)
    const place = ({ moduleId }: TestSpecification): number => {
      const at = long.findIndex((path) => moduleId.endsWith(path))
      return at === -1 ? long.length : at
    }
    return rest.toSorted((a, b) => place(a) - place(b))
  }
}

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'tests/**/*.test.ts'],
    globalSetup: ['tests/support/database-server.ts'],
    testTimeout: 150_000,
    hookTimeout: 120_000,
    maxWorkers: 6,
    sequence: { sequencer: LongestFirst },
    isolate: false,
    env: { AIR_MUSTER_ROOT: import.meta.dirname },
  },
})
