import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT, TEST_PACKAGES } from './lib/bootstrap.mjs'

// Everything that `npm test` tests, with more of the same, then the long walk through the model of worlds in portions: each
// goes on from the seed of the one before. `-- model 60` walks alone, for so many minutes.
const words = process.argv.slice(2)
const walksAlone = words[0] === 'model'
const minutes = Number(words.at(-1) ?? 30)
const log = join(PROJECT, '.yendra-model.log')

ensurePackages()
ensureDebian(TEST_PACKAGES)
ensureBuild()
const folder = mkdtempSync(join(PROJECT, '.yendra-test-'))
chmodSync(folder, 0o755)
const env = {
  ...process.env,
  YENDRA_LONG: '1',
  YENDRA_TEST_DIR: folder,
  YENDRA_MODEL_STEPS: '10000',
  YENDRA_MODEL_MS: String(minutes * 60_000),
  YENDRA_MODEL_PORTION: '250',
  YENDRA_MODEL_LOG: log,
}
const vitest = (...args) =>
  spawnSync(join(PROJECT, 'node_modules/.bin/vitest'), ['run', ...args], { cwd: PROJECT, env, stdio: 'inherit' })
    .status ?? 1
const suite = walksAlone ? 0 : vitest('--exclude', 'tests/model/**')
const walk = vitest('tests/model', '--testTimeout', String((minutes + 15) * 60_000))
rmSync(folder, { recursive: true, force: true })
const walks = existsSync(log)
  ? readFileSync(log, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line))
  : []
const sum = (of) => walks.reduce((all, walk) => all + of(walk), 0)
console.log(
  `\nSo far: ${sum((walk) => walk.steps)} steps in ${walks.length} worlds, ${sum((walk) => (walk.isReal ? walk.steps : 0))} of them on real mounts, ${sum((walk) => walk.yes)} times yes.`,
)
process.exit(suite || walk)
