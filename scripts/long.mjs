import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT, TEST_PACKAGES } from './lib/bootstrap.mjs'

/**
 * Everything that `npm test` tests, with more of the same, in parts that can be run alone: `npm run test:long --
 * media`.
 */
const PARTS = {
  core: ['core', 'contract', 'server', 'web'],
  books: ['tests/db'],
  http: ['tests/http'],
  faults: ['tests/faults'],
  media: ['tests/outside'],
  start: ['tests/start', 'tests/rooms.test.ts'],
  clear: ['tests/clear'],
}
const words = process.argv.slice(2)
// `model 60` walks for so many minutes.
const minutes = Number(words.find((word) => /^\d+$/.test(word)) ?? 30)
const asked = words.filter((word) => !/^\d+$/.test(word))
const OTHERS = { browser, model: walk, mutation }
/** Shares of changed lines that tests must notice, in percent: more where a mistake loses footage. */
const MUTATED = {
  copies: 85,
  storage: 85,
  cards: 85,
  exports: 80,
  line: 80,
  media: 80,
  proxies: 80,
  shelf: 80,
  shoot: 80,
  units: 80,
}
const unknown = asked.filter((part) => !(part in PARTS) && !(part in OTHERS))
if (unknown.length > 0) {
  console.error(
    `There is no part ${unknown.join(' or ')}. The parts are ` +
      `${[...Object.keys(PARTS), ...Object.keys(OTHERS)].join(', ')}.`,
  )
  process.exit(1)
}

ensurePackages()
ensureDebian(TEST_PACKAGES)
ensureBuild()
const folder = mkdtempSync(join(PROJECT, '.yendra-test-'))
chmodSync(folder, 0o755)
const walked = join(PROJECT, '.yendra-model.log')
const git = (...args) => spawnSync('git', args, { cwd: PROJECT, encoding: 'utf8' }).stdout.trim()
// What passed says something of the same text alone: with changes that are in no commit everything is run.
const log =
  git('status', '--porcelain') === '' ? join(PROJECT, `.yendra-long-${git('rev-parse', '--short', 'HEAD')}.log`) : ''
const linesOf = (path) =>
  path !== '' && existsSync(path) ? readFileSync(path, 'utf8').trim().split('\n').filter(Boolean) : []
const env = {
  ...process.env,
  YENDRA_LONG: '1',
  YENDRA_LONG_LOG: log,
  YENDRA_TEST_DIR: folder,
  YENDRA_STATE: join(folder, 'state'),
  YENDRA_MODEL_STEPS: '10000',
  YENDRA_MODEL_MS: String(minutes * 60_000),
  YENDRA_MODEL_PORTION: '250',
  YENDRA_MODEL_LOG: walked,
}
const program = (name, ...args) =>
  spawnSync(join(PROJECT, 'node_modules/.bin', name), args, { cwd: PROJECT, env, stdio: 'inherit' }).status ?? 1
const vitest = (...args) => program('vitest', 'run', ...args)

/** Runs what has not passed yet on this commit; a part that passed whole begins anew. */
function run(name) {
  const files = PARTS[name].flatMap((path) =>
    path.endsWith('.ts')
      ? [path]
      : readdirSync(join(PROJECT, path), { recursive: true, encoding: 'utf8' })
          .filter((file) => /[.]test[.]tsx?$/.test(file))
          .map((file) => join(path, file)),
  )
  const passed = new Set(linesOf(log))
  const open = files.filter((file) => !passed.has(file))
  const next = open.length > 0 ? open : files
  console.log(`\n— ${name}: ${next.length} of ${files.length} files`)
  return vitest('--reporter=default', '--reporter=./tests/longReporter.ts', ...next)
}

function browser() {
  return program('playwright', 'test')
}

/**
 * Changes each line of core and runs its tests: what stays green is no test. Goes on with what changed since the last
 * run.
 */
function mutation() {
  let failed = 0
  for (const [name, least] of Object.entries(MUTATED)) {
    console.log(`\n— mutation: core/${name}, at least ${least} %`)
    env.YENDRA_MUTATE = `core/${name}`
    env.YENDRA_MUTATE_LEAST = String(least)
    if (program('stryker', 'run', 'tests/mutation/stryker.config.mjs') !== 0) failed += 1
    // That tool leaves numbers as they are.
    const thresholds = ['tests/mutation/thresholds.mjs', env.YENDRA_MUTATE]
    if (spawnSync(process.execPath, thresholds, { cwd: PROJECT, stdio: 'inherit' }).status !== 0) failed += 1
  }
  return failed
}

/** The long walk through the model of worlds in portions; each goes on from the seed of the one before. */
function walk() {
  const status = vitest('tests/model', '--testTimeout', String((minutes + 15) * 60_000))
  const walks = linesOf(walked).map((line) => JSON.parse(line))
  const sum = (of) => walks.reduce((all, one) => all + of(one), 0)
  console.log(
    `\nSo far: ${sum((one) => one.steps)} steps in ${walks.length} worlds, ` +
      `${sum((one) => (one.isReal ? one.steps : 0))} of them on real mounts, ${sum((one) => one.yes)} times yes.`,
  )
  return status
}

let failed = 0
try {
  for (const part of asked.length > 0 ? asked : [...Object.keys(PARTS), ...Object.keys(OTHERS)])
    failed += (OTHERS[part]?.() ?? run(part)) === 0 ? 0 : 1
} finally {
  rmSync(folder, { recursive: true, force: true })
}
process.exit(failed === 0 ? 0 : 1)
