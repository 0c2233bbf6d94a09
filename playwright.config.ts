import { defineConfig } from '@playwright/test'

/** Files that begin in a house where a card came home. */
const AFTER_A_DAY = ['everyScreen.spec.ts', 'screens.spec.ts', 'chart.spec.ts', 'api.spec.ts', 'firstPaint.spec.ts']

/** Debian's Chromium against servers that begin as a prepared house (`tests/e2e/house.ts`). */
export default defineConfig({
  testDir: 'tests/e2e',
  // A page waits more than it works: with two, two processors were used to three fifths.
  workers: 3,
  // No second try: what passes only then has failed.
  retries: 0,
  timeout: 480_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  outputDir: 'test-results/e2e',
  use: {
    viewport: { width: 1280, height: 800 },
    colorScheme: 'light',
    screenshot: 'only-on-failure',
    actionTimeout: 60_000,
    launchOptions: {
      executablePath: '/usr/bin/chromium',
      args: [
        '--no-sandbox',
        '--disable-gpu',
        '--disable-quic',
        '--no-first-run',
        '--disable-background-networking',
        '--disable-component-update',
        '--disable-sync',
        '--autoplay-policy=no-user-gesture-required',
      ],
    },
  },
  // Houses first, then what begins in them, in any order and three files at a time.
  projects: [
    { name: 'demo', testMatch: 'demo.setup.ts' },
    { name: 'day', testMatch: 'day.setup.ts', dependencies: ['demo'] },
    { name: 'in the demo', testIgnore: AFTER_A_DAY, testMatch: '*.spec.ts', dependencies: ['demo'] },
    { name: 'after a day', testMatch: AFTER_A_DAY, dependencies: ['day'] },
  ],
})
