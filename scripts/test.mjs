import { spawn } from 'node:child_process'
import { chmodSync, existsSync, mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT, TEST_PACKAGES } from './lib/bootstrap.mjs'

ensurePackages()
ensureDebian(TEST_PACKAGES)
ensureBuild()

const results = join(PROJECT, 'test-results')
rmSync(results, { recursive: true, force: true })
mkdirSync(results, { recursive: true })
// On the project's own disk: what is proved by reading past the cache needs a real file system.
const folder = mkdtempSync(join(PROJECT, '.yendra-test-'))
// The database's account must be able to pass through it.
chmodSync(folder, 0o755)
const env = {
  ...process.env,
  YENDRA_STATE: join(folder, 'state'),
  YENDRA_TEST_DIR: folder,
  NO_COLOR: '1',
  FORCE_COLOR: undefined,
}

const whole = stopwatch()
let passed = 0
let failed = 0
// What needs rights that this account lacks; each says so in its name.
let skipped = 0

/**
 * Seconds that all processors together worked since the computer started, and that others took of them (proc(5),
 * `stat`).
 */
function processors() {
  const [user, nice, system, , , irq, softirq, steal] = readFileSync('/proc/stat', 'utf8')
    .split('\n')[0]
    .trim()
    .split(/\s+/)
    .slice(1)
    .map((ticks) => Number(ticks) / 100)
  return { worked: user + nice + system + irq + softirq, taken: steal }
}

/** How long something took: by the clock, in work of the processors, and what others took of them meanwhile. */
function stopwatch() {
  const [begun, before] = [Date.now(), processors()]
  return () => {
    const after = processors()
    const [worked, taken] = ['worked', 'taken'].map((kind) => Math.round(after[kind] - before[kind]))
    return `${((Date.now() - begun) / 1000).toFixed(0)} s (${worked} s of processors, ${taken} s taken by others)`
  }
}

/**
 * Runs a program to its end and returns whether it ended well. What it says is printed when it ends, or as it is said
 * (`live`).
 */
function run(title, program, args, how = 'quiet') {
  const took = stopwatch()
  return new Promise((resolve) => {
    const child = spawn(join(PROJECT, 'node_modules/.bin', program), args, {
      cwd: PROJECT,
      env,
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let said = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk) => (how === 'live' ? process.stdout.write(chunk) : (said += chunk)))
    child.on('error', (error) => (said += error.message))
    child.on('close', (code) => {
      console.log(`\n— ${title}\n${said.trimEnd()}\n  ${title}: ${code === 0 ? 'well' : 'failed'}, ${took()}`)
      resolve(code === 0)
    })
  })
}

/** A step that counts as one test. */
async function step(title, program, args) {
  if (await run(title, program, args)) passed += 1
  else failed += 1
}

/**
 * A runner with a report of its own; without a report, or with a failing exit and no failing test, it counts as one
 * failure.
 */
async function suite(title, program, args, report, count) {
  const well = await run(title, program, args, 'live')
  const path = join(results, report)
  const [good, bad, left] = existsSync(path) ? count(JSON.parse(readFileSync(path, 'utf8'))) : [0, 0, 0]
  passed += good
  skipped += left
  failed += bad > 0 ? bad : well && good > 0 ? 0 : 1
}

try {
  // Lint and types are one program, on both processors.
  await step('lint and types', 'oxlint', [])
  await Promise.all([
    step('format', 'prettier', ['--check', '--log-level', 'warn', '.']),
    step('rooms', 'depcruise', ['--config', 'dependency-cruiser.config.mjs', 'core', 'contract', 'server', 'web']).then(
      () => step('nothing unused', 'knip', []),
    ),
  ])
  await suite(
    'unit, outside and fault tests',
    'vitest',
    ['run', '--reporter=default', '--reporter=json', '--outputFile.json=test-results/unit.json'],
    'unit.json',
    (all) => [all.numPassedTests, all.numFailedTests, all.numPendingTests],
  )
  // A test that passed only at the second try has failed; that try is there to leave a trace.
  await suite('the real browser', 'playwright', ['test'], 'e2e.json', ({ stats }) => [
    stats.expected,
    stats.unexpected + stats.flaky,
    stats.skipped,
  ])
} finally {
  rmSync(folder, { recursive: true, force: true })
}
console.log(`\nAll of it took ${whole()}.`)
console.log(`\n${passed} passed, ${failed} failed${skipped > 0 ? `, ${skipped} skipped` : ''}`)
process.exit(failed === 0 ? 0 : 1)
