import { join } from 'node:path'
import { defineConfig } from 'vitest/config'
import whole from '../../vitest.config'

/** Simulations need neither a database nor a browser: nothing is started for them. */
export default defineConfig({
  test: {
    ...whole.test,
    root: join(import.meta.dirname, '../..'),
    include: ['tests/simulation/*.test.ts'],
    globalSetup: [],
    env: { AIR_MUSTER_ROOT: join(import.meta.dirname, '../..') },
  },
})
