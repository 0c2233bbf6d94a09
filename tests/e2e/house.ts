import { execFileSync, spawn, type ChildProcess } from 'node:child_process'
import { renameSync, rmSync } from 'node:fs'
import { join, resolve } from 'node:path'
import { test as base } from '@playwright/test'
import { freePort } from '../../scripts/lib/postgres.mjs'
import { isLong } from '../long'

const HOMES = resolve(process.env.YENDRA_STATE ?? '.yendra-test')
/** Folder of the running server's own things; each file has a house of its own, and so two files run side by side. */
export const STATE = join(HOMES, `house ${process.env.TEST_PARALLEL_INDEX ?? 0}`)
let address = ''
let program: ChildProcess | undefined

/** The runner's test, on the pages of the house that stands. */
export const test = base.extend({
  // The runner reads from this pattern what else is needed: nothing.
  // oxlint-disable-next-line no-empty-pattern
  baseURL: async ({}, given) => given(address),
})

/** A journey of which each step is tested elsewhere too: in `npm run test:long` only. */
export const more = isLong ? test : test.skip.bind(test)

/** Starts the application as a person does, on what lies in STATE. */
async function open(): Promise<void> {
  const port = await freePort()
  const child = spawn(process.execPath, ['scripts/start.mjs'], {
    env: {
      ...process.env,
      YENDRA_STATE: STATE,
      YENDRA_PORT: String(port),
      YENDRA_STORY: 'no',
      YENDRA_TEST_DEVICES: join(STATE, 'devices.json'),
    },
    stdio: ['ignore', 'pipe', 'inherit'],
  })
  program = child
  address = `http://127.0.0.1:${port}`
  let said = ''
  await new Promise<void>((done, fail) => {
    child.stdout.on('data', (chunk: Buffer) => {
      said += chunk.toString()
      if (said.includes('Yendra is ready at')) done()
    })
    child.once('exit', (code) => fail(new Error(`The application ended with ${code}: ${said}`)))
  })
}

async function close(): Promise<void> {
  const child = program
  program = undefined
  if (!child || child.exitCode !== null) return
  await new Promise((done) => {
    child.once('exit', done)
    child.kill('SIGINT')
  })
}

/**
 * To be called first in a file of tests: it gets a house of its own, which begins as the project says that its file
 * hangs on, and is kept under the project's own name where others begin with it.
 */
export function ownHouse({ isKept = false } = {}): void {
  test.beforeAll(async () => {
    const [from] = test.info().project.dependencies
    rmSync(STATE, { recursive: true, force: true })
    if (from) execFileSync('cp', ['-a', '--reflink=auto', join(HOMES, from), STATE])
    await open()
  })
  test.afterAll(async () => {
    await close()
    if (!isKept) return
    const kept = join(HOMES, test.info().project.name)
    rmSync(kept, { recursive: true, force: true })
    renameSync(STATE, kept)
  })
}
