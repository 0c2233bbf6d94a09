import { fork } from 'node:child_process'
import { chmodSync, linkSync, mkdirSync, readFileSync, realpathSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { hostname } from 'node:os'
import { join, resolve } from 'node:path'
import { homeKey, homePort, isFree, keepPort } from './lib/address.mjs'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT } from './lib/bootstrap.mjs'
import { setTimeout as wait } from 'node:timers/promises'
import { keep, watchPings } from './lib/keeper.mjs'
import { MEMORY_ENV, MEMORY_FLAGS } from './lib/memory.mjs'
import { freePort, isAlive, startPostgres } from './lib/postgres.mjs'

const flags = new Set(process.argv.slice(2))
const listening = [...flags].find((flag) => /^--listen=[\w.:-]+$/.test(flag))?.slice('--listen='.length) ?? '127.0.0.1'
const unknown = [...flags].filter(
  (flag) => !['--empty', '--reset', '--key', '--new-key'].includes(flag) && flag !== `--listen=${listening}`,
)
if (unknown.length > 0) {
  console.error(
    `Not known: ${unknown.join(' ')}. Use --empty to start without demo data, --reset to make the ` +
      'demo fresh, --key to let in only who has the printed address, --new-key to make that address ' +
      'another one, --listen=ADDRESS to be reached from other machines (with a key).',
  )
  process.exit(1)
}
const mode = flags.has('--empty') ? 'empty' : 'demo'
// Tests give their own folder; people never need to.
const home = resolve(process.env.YENDRA_STATE ?? join(PROJECT, '.yendra'))
mkdirSync(home, { recursive: true })
// Nobody else reads what is kept here. Root lends the database an account, which has to pass through to its own folder.
chmodSync(home, process.getuid?.() === 0 ? 0o711 : 0o700)

const runFile = join(home, 'run.json')
const wantsKey = flags.has('--key') || flags.has('--new-key')
/** How this start differs from any other of the same home, in words that a person gave. */
const own = { pid: process.pid, mode, listening, key: wantsKey }
const running = claimHome()
if (running) {
  const refused = whyNot(running)
  const where = running.url ? `running already at ${running.url}` : 'just being started by another command'
  console.log(`Yendra is ${where}.${refused ? ` ${refused}` : ''}`)
  process.exit(refused ? 1 : 0)
}

ensurePackages()
ensureDebian(['postgresql', 'ffmpeg'])
ensureBuild()

const children = new Map()
let postgres
let stopping = false

async function stop(code) {
  if (stopping) return
  stopping = true
  await Promise.all(
    [...children.values()].map(
      (child) =>
        new Promise((done) => {
          if (child.exitCode !== null || child.signalCode !== null) return done()
          child.once('exit', done)
          child.kill('SIGTERM')
          setTimeout(() => child.kill('SIGKILL'), 4000).unref()
        }),
    ),
  )
  await postgres?.stop()
  rmSync(runFile, { force: true })
  process.exit(code)
}
// Whoever read what is said here may have gone; that ends nothing.
for (const stream of [process.stdout, process.stderr]) stream.on('error', () => undefined)
for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP']) process.on(signal, () => void stop(0))
process.on('uncaughtException', (error) => {
  console.error(error.message)
  void stop(1)
})
process.on('unhandledRejection', (error) => {
  console.error(error instanceof Error ? error.message : error)
  void stop(1)
})

/** Starts one of the built programs and waits until it says that it is ready. */
async function startProgram(name, env) {
  // While the database is being started again, nothing else is started.
  while (!postgres.isThere() && !stopping) await wait(100)
  if (stopping) throw new Error('It is being stopped.')
  return new Promise((done, fail) => {
    const child = fork(join(PROJECT, `dist/server/${name}.js`), [], {
      env,
      execArgv: MEMORY_FLAGS,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    children.set(name, child)
    const ended = new Promise((end) => child.once('exit', (code, signal) => end(signal ?? code)))
    child.once('message', () => {
      watchPings(child, `The ${name} process`)
      done({ ended })
    })
    void ended.then((why) => fail(new Error(`The ${name} process ended with ${why} before it was ready.`)))
  })
}

/** Of two that start in one moment the second finds the port gone that was free just now, and takes the next. */
async function startAtFreePort(name, envNow) {
  for (;;)
    try {
      return await startProgram(name, envNow())
    } catch (error) {
      if (name !== 'http' || url || given !== undefined || stopping || (await isFree(port))) throw error
      port = await freePort(port + 1)
    }
}

const keepProgram = (name, envNow) =>
  keep({
    name: `The ${name} process`,
    start: () => startAtFreePort(name, envNow),
    isStopping: () => stopping,
    onStarted: () => url && writeRun(),
  })

/** The demo goes on by itself after the first page is there; its end is no one's trouble. */
function tellStory() {
  if (mode !== 'demo' || process.env.YENDRA_STORY === 'no') return
  const child = fork(join(PROJECT, 'dist/server/story.js'), [], {
    env: {
      ...env,
      YENDRA_URL: `http://${listening === '0.0.0.0' ? '127.0.0.1' : listening}:${port}`,
      ...(key ? { YENDRA_KEY: key } : {}),
    },
    stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
  })
  children.set('story', child)
  child.once('exit', () => children.delete('story'))
}

/** Starts the database again whenever it ends. */
const keepDatabase = (options) => {
  let first = { ended: postgres.ended.then(() => `see ${join(home, 'postgres.log')}`) }
  return keep({
    name: 'PostgreSQL',
    start: async () => {
      if (first) {
        const running = first
        first = undefined
        return running
      }
      postgres = await startPostgres(home, { ...options, port: postgres.port })
      return { ended: postgres.ended.then(() => `see ${join(home, 'postgres.log')}`) }
    },
    isStopping: () => stopping,
    onStarted: () => url && writeRun(),
  })
}

let url
function writeRun() {
  keepRun({
    ...own,
    url,
    processes: {
      database: postgres.pid,
      ...Object.fromEntries([...children].map(([name, child]) => [name, child.pid])),
    },
  })
}

/** What another run wrote; nothing, when it was cut off in the middle of a word. */
function readRun(file) {
  try {
    return JSON.parse(readFileSync(file, 'utf8'))
  } catch {
    return undefined
  }
}

function isStart(run) {
  try {
    return isAlive(run.pid) && readFileSync(`/proc/${run.pid}/cmdline`, 'utf8').includes('start.mjs')
  } catch {
    return false
  }
}

/** Makes this home ours, or returns the run whose it is: of several starts in one moment one alone gets it. */
function claimHome() {
  const [mine, left] = [`${runFile}.${process.pid}`, `${runFile}.left.${process.pid}`]
  writeFileSync(mine, JSON.stringify(own), { mode: 0o600 })
  try {
    for (;;) {
      try {
        linkSync(mine, runFile)
        return undefined
      } catch (error) {
        if (error.code !== 'EEXIST') throw error
      }
      const other = readRun(runFile)
      if (isStart(other)) return other
      // Left behind: one takes it away. What another start put there meanwhile is put back.
      try {
        renameSync(runFile, left)
      } catch (error) {
        if (error.code === 'ENOENT') continue
        throw error
      }
      const taken = readRun(left)
      if (isStart(taken)) {
        linkSync(left, runFile)
        return taken
      }
    }
  } finally {
    for (const file of [mine, left]) rmSync(file, { force: true })
  }
}

/** Why what was asked for cannot be had from the run that is there, and what to do. */
function whyNot(run) {
  const wanted = [
    run.mode !== mode && (mode === 'empty' ? '--empty' : 'the demo (without --empty)'),
    flags.has('--reset') && '--reset',
    flags.has('--key') && !run.key && '--key',
    flags.has('--new-key') && '--new-key',
    run.listening !== listening && `--listen=${listening}`,
  ].filter(Boolean)
  return wanted.length > 0
    ? `It has ${run.mode === 'empty' ? 'no demo data' : 'the demo'}; ${wanted.join(' and ')} can be ` +
        `had only from the start: end it with “kill ${run.pid}” (or Ctrl-C where it runs), then start again.`
    : undefined
}

/** Whoever reads it meanwhile sees the one or the other, never a half. */
function keepRun(run) {
  writeFileSync(`${runFile}.new`, JSON.stringify(run), { mode: 0o600 })
  renameSync(`${runFile}.new`, runFile)
}

const begun = Date.now()
const options = { tests: process.env.YENDRA_STATE !== undefined }
postgres = await startPostgres(home, options)
const folder = join(home, mode)
if (flags.has('--reset')) {
  postgres.drop(`yendra_${mode}`)
  rmSync(folder, { recursive: true, force: true })
}
mkdirSync(folder, { recursive: true })
chmodSync(folder, 0o700)
const env = {
  ...process.env,
  NODE_ENV: 'production',
  ...MEMORY_ENV,
  DATABASE_URL: postgres.database(`yendra_${mode}`),
  YENDRA_HOME: realpathSync(folder),
  YENDRA_WEB: join(PROJECT, 'dist/web'),
  YENDRA_BOOKS: postgres.data,
}
await new Promise((done, fail) => {
  const child = fork(join(PROJECT, 'dist/server/setup.js'), [mode], { env })
  children.set('setup', child)
  child.once('exit', (code) =>
    code === 0 ? done() : fail(new Error('The demo could not be made. Its reason stands above.')),
  )
})
children.delete('setup')
await keepDatabase(options)
const given = process.env.YENDRA_PORT ? Number(process.env.YENDRA_PORT) : undefined
const { port: free, taken } = given === undefined ? await homePort(home) : { port: given }
let port = free
const key = wantsKey || listening !== '127.0.0.1' ? homeKey(home, flags.has('--new-key')) : undefined
// One after the other: both prepare the same queues.
await keepProgram('worker', () => env)
await keepProgram('http', () => ({
  ...env,
  PORT: String(port),
  YENDRA_LISTEN: listening,
  ...(key ? { YENDRA_KEY: key } : {}),
}))
url = `http://${listening === '0.0.0.0' ? hostname() : listening}:${port}`
if (given === undefined && taken === undefined) keepPort(home, port)
writeRun()
if (taken !== undefined)
  console.log(
    `\nAnother program has port ${taken}, where Yendra was before. This time it is at port ${port}: ` +
      'open the address below in pages that are still open.',
  )
console.log(
  `\nYendra is ready at ${url}${key ? `/?key=${key}` : ''}  ` +
    `(${((Date.now() - begun) / 1000).toFixed(1)} s; Ctrl-C stops it)\n`,
)
tellStory()
