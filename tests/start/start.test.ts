import { spawn, type ChildProcess } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { freePort, isAlive } from '../../scripts/lib/postgres.mjs'
import { isLong } from '../long'
import { more } from '../more'

const state = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-start-'))
chmodSync(state, 0o755)
const started: ChildProcess[] = []

interface Started {
  readonly child: ChildProcess
  readonly said: () => string
  readonly ended: Promise<number | null>
}

function start(args: readonly string[], port?: number, variables: NodeJS.ProcessEnv = {}): Started {
  const env = { ...process.env, ...variables, YENDRA_STATE: state, YENDRA_PORT: port === undefined ? '' : String(port) }
  const child = spawn(process.execPath, ['scripts/start.mjs', ...args], { env, stdio: ['ignore', 'pipe', 'pipe'] })
  let said = ''
  child.stdout.on('data', (chunk: Buffer) => (said += chunk.toString()))
  child.stderr.on('data', (chunk: Buffer) => (said += chunk.toString()))
  started.push(child)
  return { child, said: () => said, ended: new Promise((resolve) => child.once('exit', resolve)) }
}

async function until(condition: () => boolean, what: string): Promise<void> {
  for (let turn = 0; turn < 600; turn += 1) {
    if (condition()) return
    await new Promise((resolve) => setTimeout(resolve, 100))
  }
  throw new Error(`It did not come to this: ${what}`)
}

const running = () =>
  JSON.parse(readFileSync(join(state, 'run.json'), 'utf8')) as {
    processes: { database: number; http: number; worker: number }
  }
let databasePid: number | undefined

afterAll(async () => {
  for (const child of started) child.kill('SIGINT')
  const pid = databasePid
  if (pid !== undefined)
    await until(() => !isAlive(pid), 'the database stops').catch(() => process.kill(pid, 'SIGQUIT'))
  rmSync(state, { recursive: true, force: true })
})

describe('the start command', () => {
  it('refuses options that it does not know', async () => {
    const wrong = start(['--demo'])
    expect(await wrong.ended).toBe(1)
    expect(wrong.said()).toContain('Use --empty')
  })

  it('serves an empty database, says so when it is called again, and stops everything it started', async () => {
    const port = await freePort()
    // What an earlier run left when the power went: the half of a word is no reason not to start.
    writeFileSync(join(state, 'run.json'), '{"pid":')
    const first = start(['--empty'], port)
    await until(() => first.said().includes('Yendra is ready at'), `ready: ${first.said()}`)
    const productions = await fetch(`http://127.0.0.1:${port}/api/productions`)
    expect(await productions.json()).toEqual({ rows: [], next: null })
    const bench = (await (await fetch(`http://127.0.0.1:${port}/api/bench`)).json()) as { devices: unknown[] }
    expect(bench.devices).toEqual([])

    const second = start(['--empty'])
    expect(await second.ended).toBe(0)
    expect(second.said()).toContain(`running already at http://127.0.0.1:${port}`)

    // What cannot be had from the one that runs is refused, with what to do.
    for (const [args, named] of [
      [[], 'the demo (without --empty)'],
      [['--empty', '--reset'], '--reset'],
      [['--empty', '--key'], '--key'],
      [['--empty', '--new-key'], '--new-key'],
      [['--empty', '--listen=0.0.0.0'], '--listen=0.0.0.0'],
    ] as const) {
      const refused = start(args)
      expect(await refused.ended, args.join(' ')).toBe(1)
      expect(refused.said()).toContain(`It has no demo data; ${named} can be had only from the start`)
      expect(refused.said()).toContain(`kill ${first.child.pid ?? 0}`)
    }

    const { http, worker, database } = running().processes
    databasePid = database
    expect([http, worker, database].every(isAlive)).toBe(true)
    first.child.kill('SIGINT')
    expect(await first.ended).toBe(0)
    for (const pid of [http, worker, database]) expect(isAlive(pid)).toBe(false)
    expect(existsSync(join(state, 'run.json'))).toBe(false)
  })

  it('is carried out once when it is called several times in one moment, also over what a killed one left', async () => {
    for (const left of [...(isLong ? [undefined] : []), JSON.stringify({ pid: 999_999_999, mode: 'empty' })]) {
      if (left !== undefined) writeFileSync(join(state, 'run.json'), left)
      const all = Array.from({ length: 4 }, () => start(['--empty']))
      await until(
        () =>
          all.filter((one) => one.child.exitCode !== null).length === 3 &&
          all.some((one) => one.said().includes('is ready')),
        `one is ready: ${all.map((one) => one.said()).join(' | ')}`,
      )
      const others = all.filter((one) => !one.said().includes('Yendra is ready'))
      expect(others.map((one) => one.child.exitCode)).toEqual([0, 0, 0])
      for (const one of others) expect(one.said()).toMatch(/running already|just being started/)
      const winner = all.find((one) => one.said().includes('Yendra is ready'))
      winner?.child.kill('SIGINT')
      expect(await winner?.ended).toBe(0)
    }
  })

  more('keeps its port and its key from one start to the next, and says when the port is taken', async () => {
    const ended = async (one: Started) => {
      one.child.kill('SIGINT')
      expect(await one.ended).toBe(0)
    }
    const ready = async (args: readonly string[]) => {
      const run = start(['--empty', ...args])
      await until(() => run.said().includes('Yendra is ready at'), `ready: ${run.said()}`)
      const [, address = '', key = ''] = /ready at (http:\S+?)\/\?key=(\S+)/.exec(run.said()) ?? []
      return { run, address, key }
    }
    const first = await ready(['--key'])
    const entered = await fetch(`${first.address}/?key=${first.key}`, { redirect: 'manual' })
    const cookie = entered.headers.get('set-cookie')?.split(';')[0] ?? ''
    const lets = async (address: string) => (await fetch(`${address}/api/productions`, { headers: { cookie } })).status
    expect(await lets(first.address)).toBe(200)
    await ended(first.run)
    const second = await ready(['--key'])
    expect(second).toMatchObject({ address: first.address, key: first.key })
    expect(await lets(second.address)).toBe(200)
    await ended(second.run)
    // Another program has the port meanwhile, and the key is made anew.
    const other = createServer().listen(Number(new URL(first.address).port), '127.0.0.1')
    const third = await ready(['--new-key'])
    expect(third.run.said()).toContain(`Another program has port ${new URL(first.address).port}`)
    expect(third.address).not.toBe(first.address)
    expect(third.key).not.toBe(first.key)
    expect(await lets(third.address)).toBe(401)
    await ended(third.run)
    other.close()
  })

  more('cleans up after a run that was killed', async () => {
    const killed = start(['--empty'], await freePort())
    await until(() => killed.said().includes('Yendra is ready at'), `ready: ${killed.said()}`)
    const { http, worker, database: orphan } = running().processes
    databasePid = orphan
    killed.child.kill('SIGKILL')
    await until(() => !isAlive(http) && !isAlive(worker), 'both programs notice that nobody watches over them')
    expect(isAlive(orphan)).toBe(true)

    const port = await freePort()
    const next = start(['--empty'], port)
    await until(() => next.said().includes('Yendra is ready at'), `ready: ${next.said()}`)
    databasePid = running().processes.database
    expect(databasePid).not.toBe(orphan)
    expect(isAlive(orphan)).toBe(false)
    expect((await fetch(`http://127.0.0.1:${port}/`)).status).toBe(200)
    next.child.kill('SIGINT')
    expect(await next.ended).toBe(0)
  })

  more('goes on when nobody reads any more what it says, and ends when it is told to', async () => {
    const first = start(['--empty'], await freePort())
    await until(() => first.said().includes('Yendra is ready at'), `ready: ${first.said()}`)
    const { http, database } = running().processes
    databasePid = database
    // As behind `| head`: the pipe is gone when the next line is written.
    first.child.stdout?.destroy()
    first.child.stderr?.destroy()
    process.kill(http, 'SIGKILL')
    await until(
      () => running().processes.http !== http && isAlive(running().processes.http),
      'a program is started again',
    )
    expect(first.child.exitCode).toBeNull()
    first.child.kill('SIGINT')
    expect(await first.ended).toBe(0)
    expect(isAlive(database)).toBe(false)
  })

  more('starts the database again when that ends, and everything with it', async () => {
    const port = await freePort()
    const first = start(['--empty'], port)
    await until(() => first.said().includes('Yendra is ready at'), `ready: ${first.said()}`)
    const { database } = running().processes
    process.kill(database, 'SIGKILL')
    await until(() => running().processes.database !== database, `again: ${first.said()}`)
    databasePid = running().processes.database
    const answers = async () => (await fetch(`http://127.0.0.1:${port}/api/productions`).catch(() => undefined))?.status
    let status: number | undefined
    for (let turn = 0; turn < 300 && status !== 200; turn += 1) {
      await new Promise((resolve) => setTimeout(resolve, 100))
      status = await answers()
    }
    expect(status, first.said()).toBe(200)
    expect(first.said()).toMatch(/PostgreSQL ended .* and is started again\./)
    expect(first.said()).not.toMatch(/\n\s+at /)
    first.child.kill('SIGINT')
    expect(await first.ended).toBe(0)
  })

  more('survives any part that ends at a bad moment, again and again, and ends one that does not answer', async () => {
    const port = await freePort()
    const first = start(['--empty'], port, { YENDRA_PING_MS: '500' })
    await until(() => first.said().includes('Yendra is ready at'), `ready: ${first.said()}`)
    databasePid = running().processes.database
    const again = (name: 'worker' | 'http', pid: number) =>
      until(() => running().processes[name] !== pid && isAlive(running().processes[name]), `${name}: ${first.said()}`)
    // Killed as soon as it is there, before it is ready: the second time within a second.
    const { worker } = running().processes
    process.kill(worker, 'SIGKILL')
    await until(
      () => childrenOf(first.child.pid).some((pid) => pid.program === 'worker' && pid.id !== worker),
      'starting',
    )
    for (const one of childrenOf(first.child.pid)) if (one.program === 'worker') process.kill(one.id, 'SIGKILL')
    await again('worker', worker)
    expect(first.child.exitCode).toBeNull()
    // Held in an endless loop, or stopped: it answers no ping.
    const { http } = running().processes
    process.kill(http, 'SIGSTOP')
    await again('http', http)
    expect(first.said()).toContain('The http process has not answered')
    await until(() => isAlive(running().processes.http), 'the pages')
    expect((await fetch(`http://127.0.0.1:${port}/api/productions`)).status).toBe(200)
    first.child.kill('SIGINT')
    expect(await first.ended).toBe(0)
  })
})

/** The programs that a start command runs at this moment, ready or not. Source: proc_pid_cmdline(5). */
function childrenOf(pid: number | undefined): { readonly id: number; readonly program: string }[] {
  const list = readFileSync(`/proc/${pid}/task/${pid}/children`, 'utf8').trim()
  return list.split(' ').flatMap((id) => {
    const line = existsSync(`/proc/${id}/cmdline`) ? readFileSync(`/proc/${id}/cmdline`, 'utf8') : ''
    const program = /dist\/server\/(\w+)\.js/.exec(line)?.[1]
    return program === undefined ? [] : [{ id: Number(id), program }]
  })
}
