import { defineConfig } from 'vitest/config'

export default defineConfig({
  test: {
    include: ['{core,contract,server,web}/**/*.test.{ts,tsx}', 'tests/**/*.test.ts'],
    testTimeout: 900_000,
    hookTimeout: 300_000,
  },
})
