import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['{core,contract,server,web}/**/*.test.{ts,tsx}', 'tests/**/*.test.ts'],
    globalSetup: 'tests/prepared.ts',
    // Most of them wait for disks and programs of their own.
    maxWorkers: 2,
    testTimeout: 900_000,
    hookTimeout: 300_000,
  },
})
