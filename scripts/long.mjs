import { spawnSync } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT, TEST_PACKAGES } from './lib/bootstrap.mjs'

// The long walk through the model of worlds, in portions: each goes on from the seed of the one before.
const minutes = Number(process.argv[2] ?? 30)
const log = join(PROJECT, '.yendra-model.log')

ensurePackages()
ensureDebian(TEST_PACKAGES)
ensureBuild()
const folder = mkdtempSync(join(PROJECT, '.yendra-test-'))
chmodSync(folder, 0o755)
const env = {
  ...process.env,
  YENDRA_TEST_DIR: folder,
  YENDRA_MODEL_STEPS: '10000',
  YENDRA_MODEL_MS: String(minutes * 60_000),
  YENDRA_MODEL_PORTION: '250',
  YENDRA_MODEL_LOG: log,
}
const { status } = spawnSync(
  join(PROJECT, 'node_modules/.bin/vitest'),
  ['run', 'tests/model', '--testTimeout', String((minutes + 15) * 60_000)],
  { cwd: PROJECT, env, stdio: 'inherit' },
)
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
process.exit(status ?? 1)
