import { defineConfig } from 'vitest/config'

/** Tests of core alone: they start nothing and wait for nothing, so that each change of a line is tried in a second. */
export default defineConfig({
  test: {
    include: ['core/**/*.test.ts'],
    maxWorkers: 1,
    testTimeout: 60_000,
    setupFiles: ['tests/mutation/fewerRuns.ts'],
  },
})
