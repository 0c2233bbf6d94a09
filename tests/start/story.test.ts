import { execFileSync, spawn, spawnSync, type ChildProcess } from 'node:child_process'
import { chmodSync, mkdtempSync, readdirSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect } from 'vitest'
import type { LoadCopies } from '../../contract/copies'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import type { StateView } from '../../contract/state'
import type { TaskView } from '../../contract/tasks'
import { freePort } from '../../scripts/lib/postgres.mjs'
import { args } from '../args'
import { more } from '../more'

const state = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-story-'))
chmodSync(state, 0o755)
let child: ChildProcess | undefined
let base = ''

async function start(): Promise<void> {
  const port = await freePort()
  base = `http://127.0.0.1:${port}/api`
  const env = { ...process.env, YENDRA_STATE: state, YENDRA_PORT: String(port) }
  const program = spawn(process.execPath, ['scripts/start.mjs'], { env, stdio: ['ignore', 'pipe', 'inherit'] })
  child = program
  await new Promise<void>((done, fail) => {
    program.stdout.on('data', (chunk: Buffer) => chunk.toString().includes('Yendra is ready') && done())
    program.once('exit', (code) => fail(new Error(`It ended with ${code}.`)))
  })
}

async function stop(): Promise<void> {
  const program = child
  child = undefined
  if (!program || program.exitCode !== null) return
  await new Promise((done) => {
    program.once('exit', done)
    program.kill('SIGINT')
  })
}
afterAll(async () => {
  await stop()
  rmSync(state, { recursive: true, force: true })
})

const get = async <T>(path: string) => (await (await fetch(`${base}${path}`)).json()) as T
const tasks = () => get<TaskView[]>('/tasks')
async function until(isSo: () => Promise<boolean>): Promise<void> {
  for (let turn = 0; turn < 1200; turn += 1) {
    if (await isSo()) return
    await new Promise((done) => setTimeout(done, 500))
  }
  throw new Error(`It never came to this: ${JSON.stringify(await get('/state'))}`)
}
const isTold = async () => (await get<StateView>('/state')).demo === null
const bench = (...path: string[]) => join(state, 'demo/bench', ...path)
const garboard = async () => {
  const { rows } = await get<Page<ProductionView>>('/productions?limit=50')
  return rows.find((one) => one.title === 'Caulking the garboard') ?? expect.fail('there is no garboard')
}

describe('the story of the demo', () => {
  more('goes on where it was cut, and claims nothing that its bytes do not bear out', async () => {
    await start()
    // In the middle of its first copy.
    await until(async () => (await tasks()).some((task) => task.kind === 'copy'))
    await stop()
    await start()
    await until(isTold)
    const { id, line } = await garboard()
    expect(line.map(({ station, figure, worry }) => [station, figure, worry])).toEqual([
      ['shoot', '12.3 GB, 2 cards', undefined],
      ['cards', '9 clips', undefined],
      ['copies', 'not copied twice', '1 load not safe'],
      ['proxies', '7 of 7', '1 proxy differs'],
      ['storage', expect.stringMatching(/MB$/), undefined],
      ['exports', '2 deliverables', '1 file fails a check'],
      ['shelf', '1 bag', undefined],
    ])
    // Source: diff and sha256sum of Debian, and ffmpeg, which decodes each proxy to its end.
    for (const card of ['Curlew C', 'Plover C'])
      for (const volume of ['slipway', 'neap']) {
        const mirror = bench('volumes', volume, 'Caulking the garboard/Cards', card)
        const source = bench('cards', card.toLowerCase().replace(' ', '-'))
        expect(spawnSync('diff', ['-r', source, mirror]).stdout.toString(), `${card} on ${volume}`).toBe('')
      }
    const { rows } = await get<Page<LoadCopies>>(`/productions/${id}/copies`)
    expect(
      rows.map(({ label, formattedAt, formattedAgainst }) => [label, formattedAt !== null, formattedAgainst]),
    ).toEqual([
      ...[
        ['Field 2', false, null],
        ['Plover C', false, null],
        ['Curlew C', true, null],
      ],
    ])
    const proxies = bench('volumes/slipway/Caulking the garboard/Proxies')
    const made = readdirSync(proxies, { recursive: true, encoding: 'utf8' }).filter((name) => name.endsWith('.mp4'))
    const complains = (name: string) =>
      spawnSync('ffmpeg', [...args('-v error -i'), join(proxies, name), ...args('-f null -')]).stderr.length > 0
    expect([made.length, made.filter(complains).length]).toEqual([7, 1])
    const [bag = ''] = readdirSync(bench('volumes/tide-1/Caulking the garboard/Shelf'))
    execFileSync('sha256sum', args('--strict --quiet -c manifest-sha256.txt'), {
      cwd: bench('volumes/tide-1/Caulking the garboard/Shelf', bag),
    })
    expect((await tasks()).filter((task) => task.state === 'failed').map((task) => task.sentence)).toEqual([])
    // Told once: another start does nothing more.
    const before = (await tasks()).map((task) => task.id)
    await stop()
    await start()
    await new Promise((done) => setTimeout(done, 3000))
    expect([await isTold(), (await tasks()).map((task) => task.id)]).toEqual([true, before])
  })
})
