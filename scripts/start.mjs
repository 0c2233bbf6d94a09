import { fork } from 'node:child_process'
import { randomBytes } from 'node:crypto'
import { chmodSync, mkdirSync, readFileSync, realpathSync, renameSync, rmSync, writeFileSync } from 'node:fs'
import { hostname } from 'node:os'
import { join, resolve } from 'node:path'
import { ensureBuild, ensureDebian, ensurePackages, PROJECT } from './lib/bootstrap.mjs'
import { setTimeout as wait } from 'node:timers/promises'
import { MEMORY_FLAGS } from './lib/memory.mjs'
import { freePort, isAlive, startPostgres } from './lib/postgres.mjs'

const flags = new Set(process.argv.slice(2))
const listening = [...flags].find((flag) => /^--listen=[\w.:-]+$/.test(flag))?.slice('--listen='.length) ?? '127.0.0.1'
const unknown = [...flags].filter(
  (flag) => !['--empty', '--reset', '--key'].includes(flag) && flag !== `--listen=${listening}`,
)
if (unknown.length > 0) {
  console.error(
    `Not known: ${unknown.join(' ')}. Use --empty to start without demo data, --reset to make the demo fresh, --key to let in only who has the printed address, --listen=ADDRESS to be reached from other machines (with a key).`,
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
const earlier = readRun()
if (
  earlier &&
  earlier.pid !== process.pid &&
  isAlive(earlier.pid) &&
  readFileSync(`/proc/${earlier.pid}/cmdline`, 'utf8').includes('start.mjs')
) {
  console.log(
    earlier.url ? `Yendra is running already at ${earlier.url}` : 'Yendra is just being started by another command.',
  )
  process.exit(0)
}
keepRun({ pid: process.pid })

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
function startProgram(name, env, args = []) {
  return new Promise((done, fail) => {
    const child = fork(join(PROJECT, `dist/server/${name}.js`), args, {
      env,
      execArgv: MEMORY_FLAGS,
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
    })
    children.set(name, child)
    child.once('message', () => done(child))
    child.once('exit', (code) =>
      fail(new Error(`The ${name} process ended with ${code ?? 'a signal'} before it was ready.`)),
    )
  })
}

/** Settles when the database answers; while it is being started again, nothing else is started. */
let databaseReady = Promise.resolve()

/** Keeps a program alive: a killed worker is started again and takes up its work. */
async function keepAlive(name, env) {
  await databaseReady
  let child
  try {
    child = await startProgram(name, env)
  } catch (error) {
    // It met a database that had just gone: with it, it is tried once more.
    if (stopping || postgres.isThere()) throw error
    await wait(500)
    return keepAlive(name, env)
  }
  child.once('exit', (code, signal) => {
    if (stopping) return
    console.error(`The ${name} process ended (${signal ?? code}) and is started again.`)
    setTimeout(() => keepAlive(name, env).then(writeRun).catch(giveUp), 500)
  })
}

const giveUp = (error) => {
  if (stopping) return
  console.error(error.message)
  void stop(1)
}

const RESTARTS = 3
const WITHIN_MS = 60_000
const ends = []

/** Starts the database again when it ends; one that ends again and again stays down, and is said once. */
function watchDatabase(options) {
  void postgres.ended.then(() => {
    if (stopping) return
    ends.push(Date.now())
    if (ends.filter((at) => Date.now() - at < WITHIN_MS).length > RESTARTS)
      return giveUp(new Error(`PostgreSQL ends again and again. Its last words are in ${join(home, 'postgres.log')}.`))
    console.error('PostgreSQL ended and is started again.')
    databaseReady = startPostgres(home, { ...options, port: postgres.port }).then((again) => {
      postgres = again
      writeRun()
      watchDatabase(options)
    })
    databaseReady.catch(giveUp)
  })
}

let url
function writeRun() {
  keepRun({
    pid: process.pid,
    url,
    processes: {
      database: postgres.pid,
      ...Object.fromEntries([...children].map(([name, child]) => [name, child.pid])),
    },
  })
}

/** What an earlier run left behind; nothing, when it was cut off in the middle of a word. */
function readRun() {
  try {
    return JSON.parse(readFileSync(runFile, 'utf8'))
  } catch {
    return undefined
  }
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
// Files in a worker wait for the disk: more threads than the default four keep several drives busy.
const env = {
  ...process.env,
  NODE_ENV: 'production',
  UV_THREADPOOL_SIZE: '16',
  DATABASE_URL: postgres.database(`yendra_${mode}`),
  YENDRA_HOME: realpathSync(folder),
  YENDRA_WEB: join(PROJECT, 'dist/web'),
}
await new Promise((done, fail) => {
  const child = fork(join(PROJECT, 'dist/server/setup.js'), [mode], { env })
  children.set('setup', child)
  child.once('exit', (code) =>
    code === 0 ? done() : fail(new Error('The demo could not be made. Its reason stands above.')),
  )
})
children.delete('setup')
watchDatabase(options)
const port = process.env.YENDRA_PORT ? Number(process.env.YENDRA_PORT) : await freePort(4600)
const key = flags.has('--key') || listening !== '127.0.0.1' ? randomBytes(24).toString('base64url') : undefined
url = `http://${listening === '0.0.0.0' ? hostname() : listening}:${port}`
// One after the other: both prepare the same queues.
await keepAlive('worker', env)
await keepAlive('http', { ...env, PORT: String(port), YENDRA_LISTEN: listening, ...(key ? { YENDRA_KEY: key } : {}) })
writeRun()
console.log(
  `\nYendra is ready at ${url}${key ? `/?key=${key}` : ''}  (${((Date.now() - begun) / 1000).toFixed(1)} s; Ctrl-C stops it)\n`,
)
