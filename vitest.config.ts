import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['src/**/*.test.ts', 'tests/**/*.test.ts'],
    globalSetup: ['tests/support/database-server.ts'],
    testTimeout: 150_000,
    hookTimeout: 120_000,
    maxWorkers: 3,
    env: { AIR_MUSTER_ROOT: import.meta.dirname },
  },
})
