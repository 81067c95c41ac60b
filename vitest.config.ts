import { defineConfig } from 'vitest/config'
import { LongestFirst } from './tests/support/longest-first'

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'tests/**/*.test.ts'],
    globalSetup: ['tests/support/database-server.ts'],
    testTimeout: 150_000,
    hookTimeout: 120_000,
    maxWorkers: 4,
    sequence: { sequencer: LongestFirst },
    isolate: false,
    // The machine of the checks is shared: a test that it kept waiting is tried once more there, and nowhere else.
    retry: process.env.CI ? 1 : 0,
    env: { AIR_MUSTER_ROOT: import.meta.dirname },
  },
})
