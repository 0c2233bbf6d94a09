import { spawnSync } from 'node:child_process'
import { join } from 'node:path'
import { MEMORY_ENV } from './lib/memory.mjs'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT } from './lib/bootstrap.mjs'

ensurePackages()
ensureDebian(['xxhash', 'vmtouch'])
ensureBuild()
const env = { ...process.env, ...MEMORY_ENV }
const build = spawnSync(
  join(PROJECT, 'node_modules/.bin/vite'),
  ['build', '--config', 'vite.server.config.ts', '--mode', 'bench', '--logLevel', 'warn'],
  { cwd: PROJECT, env, stdio: 'inherit' },
)
const { status } =
  build.status === 0
    ? spawnSync(process.execPath, ['dist/bench/bench.js', ...process.argv.slice(2)], {
        cwd: PROJECT,
        env,
        stdio: 'inherit',
      })
    : build
process.exit(status ?? 1)
