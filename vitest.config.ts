import { defineConfig } from 'vitest/config'

const waits = { testTimeout: 900_000, hookTimeout: 300_000 }

export default defineConfig({
  test: {
    // Most of them wait for disks and programs of their own.
    maxWorkers: 2,
    projects: [
      // What keeps nothing between two tests shares one process: to begin one takes longer than they do.
      { test: { name: 'logic', include: ['{core,contract,web}/**/*.test.{ts,tsx}'], isolate: false, ...waits } },
      {
        test: {
          name: 'whole',
          include: ['server/**/*.test.ts', 'tests/**/*.test.ts'],
          globalSetup: 'tests/prepared.ts',
          ...waits,
        },
      },
    ],
  },
})
