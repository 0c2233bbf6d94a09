import { defineConfig } from 'vitest/config'

/** Tests of core alone: they start nothing and wait for nothing, so that each change of a line is tried in a second. */
export default defineConfig({
  test: {
    // The names of pixel formats are compared with a program that answers at once.
    include: ['core/**/*.test.ts', 'tests/outside/pixelFormat.test.ts'],
    maxWorkers: 1,
    testTimeout: 60_000,
    setupFiles: ['tests/mutation/fewerRuns.ts'],
  },
})
