import { resolve } from 'node:path'
import { defineConfig } from '@playwright/test'

const port = process.env.YENDRA_PORT ?? '4699'
const state = process.env.YENDRA_STATE ?? '.yendra-test'

/** Debian's Chromium against a freshly started server with its own database and folders. */
export default defineConfig({
  testDir: 'tests/e2e',
  workers: 1,
  // No second try: the stories stand on each other, and a second one would start in the middle of the first.
  retries: 0,
  timeout: 480_000,
  expect: { timeout: 60_000 },
  reporter: [['list'], ['json', { outputFile: 'test-results/e2e.json' }]],
  outputDir: 'test-results/e2e',
  use: {
    baseURL: `http://127.0.0.1:${port}`,
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
  webServer: {
    command: 'node scripts/start.mjs --reset',
    env: { YENDRA_STATE: state, YENDRA_PORT: port, YENDRA_TEST_DEVICES: `${resolve(state)}/devices.json` },
    url: `http://127.0.0.1:${port}/api/productions`,
    timeout: 240_000,
    stdout: 'pipe',
    gracefulShutdown: { signal: 'SIGINT', timeout: 8000 },
  },
})
