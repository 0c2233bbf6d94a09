import { execFileSync, spawnSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { existsSync, mkdirSync, readdirSync, readFileSync, statSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/** Root of the project. */
export const PROJECT = join(dirname(fileURLToPath(import.meta.url)), '../..')

const DEBIAN = {
  postgresql: () => postgresBin() !== undefined,
  ffmpeg: () => onPath('ffmpeg') && onPath('ffprobe'),
  chromium: () => onPath('chromium'),
  xxhash: () => onPath('xxhsum'),
  mediainfo: () => onPath('mediainfo'),
  // Reads the pages of a printed document, for tests.
  'poppler-utils': () => onPath('pdftotext'),
  // Reads and writes checksum lists of several kinds, for tests.
  rhash: () => onPath('rhash'),
  openssl: () => onPath('openssl'),
  // Reads codes on printed labels, for tests.
  'zbar-tools': () => onPath('zbarimg'),
  vmtouch: () => onPath('vmtouch'),
  // Makes file systems on which files share bytes, for tests.
  xfsprogs: () => existsSync('/sbin/mkfs.xfs'),
  // File systems of cards of today, and of drives with snapshots, for tests.
  'exfat-fuse': () => existsSync('/usr/sbin/mount.exfat-fuse'),
  exfatprogs: () => existsSync('/usr/sbin/mkfs.exfat'),
  'btrfs-progs': () => existsSync('/usr/sbin/mkfs.btrfs'),
}

/** What the tests need of Debian: programs that are run, and others that results are compared with. */
export const TEST_PACKAGES = [
  ...['postgresql', 'ffmpeg', 'chromium', 'xxhash', 'mediainfo', 'poppler-utils'],
  ...['xfsprogs', 'exfat-fuse', 'exfatprogs', 'btrfs-progs', 'rhash', 'openssl', 'zbar-tools'],
]

export function onPath(program) {
  return (process.env.PATH ?? '').split(':').some((folder) => folder && existsSync(join(folder, program)))
}

/** Folder with initdb and postgres, newest version first. */
export function postgresBin() {
  const versions = existsSync('/usr/lib/postgresql')
    ? readdirSync('/usr/lib/postgresql').sort((a, b) => Number(b) - Number(a))
    : []
  return versions
    .map((version) => `/usr/lib/postgresql/${version}/bin`)
    .find((folder) => existsSync(join(folder, 'initdb')) && existsSync(join(folder, 'postgres')))
}

/** Installs Debian's packages that are missing when run by root; otherwise says the one line to run and stops. */
export function ensureDebian(names) {
  const missing = names.filter((name) => !DEBIAN[name]())
  if (missing.length === 0) return
  const install = `apt-get install -y --no-install-recommends ${missing.join(' ')}`
  if (process.getuid?.() !== 0) {
    console.error(
      `Some programs are missing. Run this once, then start again:\n\n  sudo apt-get update && sudo ${install}\n`,
    )
    process.exit(1)
  }
  console.log(`Installing from Debian: ${missing.join(', ')} …`)
  const env = { ...process.env, DEBIAN_FRONTEND: 'noninteractive' }
  for (const command of ['apt-get update', install]) {
    const { status } = spawnSync('sh', ['-c', `${command} >/tmp/yendra-apt.log 2>&1`], { env })
    if (status !== 0) {
      console.error(
        `"${command}" failed:\n${readFileSync('/tmp/yendra-apt.log', 'utf8').split('\n').slice(-8).join('\n')}`,
      )
      process.exit(1)
    }
  }
  const still = missing.filter((name) => !DEBIAN[name]())
  if (still.length > 0) {
    console.error(`Still missing after the installation: ${still.join(', ')}.`)
    process.exit(1)
  }
}

const digest = (text) => createHash('sha256').update(text).digest('hex')

/** `npm ci` when there are no packages yet or the lock file changed. */
export function ensurePackages() {
  const [major, minor] = process.versions.node.split('.').map(Number)
  if (major < 20 || (major === 20 && minor < 19)) {
    console.error(`Node.js 20.19 or newer is needed; this is ${process.versions.node}.`)
    process.exit(1)
  }
  const stamp = join(PROJECT, 'node_modules/.yendra-lock')
  const lock = digest(readFileSync(join(PROJECT, 'package-lock.json')))
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === lock) return
  console.log('Installing npm packages …')
  execFileSync('npm', ['ci', '--no-audit', '--no-fund', '--loglevel=error'], {
    cwd: PROJECT,
    stdio: ['ignore', 'ignore', 'inherit'],
  })
  writeFileSync(stamp, lock)
}

function filesBelow(folder) {
  return readdirSync(folder, { withFileTypes: true }).flatMap((entry) => {
    const path = join(folder, entry.name)
    return entry.isDirectory() ? filesBelow(path) : [path]
  })
}

/** Builds pages and server when a source is newer than the last build. */
export function ensureBuild() {
  const sources = ['core', 'contract', 'server', 'web'].flatMap((folder) => filesBelow(join(PROJECT, folder)))
  const configs = ['vite.config.ts', 'vite.server.config.ts', 'package-lock.json'].map((name) => join(PROJECT, name))
  const state = digest(
    [...sources, ...configs]
      .sort()
      .map((path) => `${path} ${statSync(path).size} ${statSync(path).mtimeMs}`)
      .join('\n'),
  )
  const stamp = join(PROJECT, 'dist/.stamp')
  if (existsSync(stamp) && readFileSync(stamp, 'utf8') === state) return
  console.log('Building …')
  for (const config of ['vite.config.ts', 'vite.server.config.ts']) {
    const { status, stderr, stdout } = spawnSync(
      join(PROJECT, 'node_modules/.bin/vite'),
      ['build', '--config', config, '--logLevel', 'warn'],
      { cwd: PROJECT, encoding: 'utf8' },
    )
    if (status !== 0) {
      console.error(stdout + stderr)
      process.exit(1)
    }
  }
  mkdirSync(dirname(stamp), { recursive: true })
  writeFileSync(stamp, state)
}
