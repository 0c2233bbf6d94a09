import pg from 'pg'
import { TASK_LINES, type TaskKind } from '../../contract/taskKinds'
import { BenchPlaces } from '../bench/benchPlaces'
import { openDatabase, type Db } from '../db/connection'
import { putHashSpeed } from '../db/queries/settings'
import { CHANNELS, notify, TaskOpen } from '../db/queries/tasks'
import { measureHashing } from '../engine/copy/hash'
import { databaseUrl, hostName } from '../home'
import { startNextCopy } from '../enqueue/copyQueue'
import { openBoss, queueName, startTask } from '../enqueue/enqueue'
import { ChartLines } from '../jobs/rules/chartLines'
import { Doubts } from '../jobs/rules/doubts'
import { ProofByNight } from '../jobs/rules/proofByNight'
import { ProxiesByNight } from '../jobs/rules/byNight'
import { Unattended } from '../jobs/rules/unattended'
import { Runner } from '../jobs/runner'
import type { NextTask } from '../jobs/work'
import { log } from '../log'
import { registerSimulated } from '../media/mediumOf'
import { Observer } from '../observer/observer'

/** How many tasks of each line run side by side; a paused one keeps its place. */
const AT_ONCE = { files: 3, pictures: 2 } as const

/** How often a worker says what it runs. */
const ALIVE_MS = 15_000

const leave = (error: Error) => {
  log.error(error, 'worker leaves')
  process.exit(1)
}

interface Message {
  readonly taskId?: string
  readonly topics?: readonly string[]
  readonly id?: string
  readonly loadIds?: readonly string[]
  readonly line?: string
}

/** What waits for tasks of each line. */
const lanes: { readonly line: string; readonly id: string }[] = []
const wake = (line: string) => {
  for (const lane of lanes) if (lane.line === line) boss.notifyWorker(lane.id)
}

/** Orders and questions reach a worker through PostgreSQL, so that they find it on whatever machine it runs. */
async function listen(url: string, db: Db, runner: Runner, observer: Observer, bench: BenchPlaces): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url })
  client.on('error', leave)
  await client.connect()
  const hear = async (channel: string, message: Message) => {
    if (channel === CHANNELS.orders && message.taskId) await runner.obey(message.taskId)
    if (channel === CHANNELS.queued && message.line) wake(message.line)
    if (channel === CHANNELS.news && message.topics?.includes('bench')) await bench.refresh(db)
    if (channel === CHANNELS.look && message.id) {
      await bench.refresh(db)
      const done = await observer.look(message.loadIds ?? []).then(
        () => true,
        () => false,
      )
      await notify(db, 'looked', { id: message.id, done })
    }
  }
  client.on('notification', ({ channel, payload }) => {
    void hear(channel, JSON.parse(payload ?? '{}') as Message).catch((error: unknown) => log.error(error, channel))
  })
  for (const channel of [CHANNELS.orders, CHANNELS.news, CHANNELS.look, CHANNELS.queued])
    await client.query(`listen ${channel}`)
  return client
}

const url = databaseUrl()
const db = await openDatabase(url)
const bench = new BenchPlaces()
registerSimulated(bench)
const boss = await openBoss(url, (error) => log.error(error, 'queue'))
const observer = new Observer(db, hostName())
const follow = async (task: NextTask) => {
  await startTask(db, boss, task).catch((error: unknown) => {
    if (!(error instanceof TaskOpen)) throw error
  })
}
const after = (kind: TaskKind) => (kind === 'copy' || kind === 'scan' ? startNextCopy(db, boss) : Promise.resolve())
const runner = new Runner(db, hostName(), { look: (loadIds) => observer.look(loadIds), follow, after })
const heard = await listen(url, db, runner, observer, bench)
await runner.takeUp(boss)
for (const line of TASK_LINES) {
  for (let lane = 0; lane < AT_ONCE[line]; lane += 1) {
    const id = await boss.work<{ taskId: string }>(
      queueName(line, hostName()),
      // Each order is told at once; this is for one that was told while nobody listened.
      { pollingIntervalSeconds: 5 },
      async ([job]) => {
        if (job) await runner.run(job.data.taskId)
      },
    )
    lanes.push({ line, id })
  }
}
const unattended = new Unattended(db, hostName(), { look: follow, startNextCopy: () => startNextCopy(db, boss) })
const doubts = new Doubts(db, hostName(), follow)
const proofByNight = new ProofByNight(db, hostName(), follow)
const proxiesByNight = new ProxiesByNight(db, hostName(), follow)
observer.afterEach(async () => {
  await unattended.turn()
  await doubts.turn()
  await proxiesByNight.turn()
  await proofByNight.turn()
})
await startNextCopy(db, boss).catch((error: unknown) => log.error(error, 'queue of copies'))
await putHashSpeed(db, hostName(), measureHashing())
await observer.start()
new ChartLines(db, hostName(), follow).start()
setInterval(() => {
  // Whoever was held for long says so before it is taken for dead.
  void runner.turn(boss).catch((error: unknown) => log.warn(error, 'tasks'))
}, ALIVE_MS)
process.send?.('ready')

const stop = async () => {
  observer.stop()
  await Promise.race([
    Promise.all([boss.stop({ graceful: false }), heard.end(), db.destroy()]),
    new Promise((resolve) => setTimeout(resolve, 1500)),
  ])
  process.exit(0)
}
process.on('SIGTERM', () => void stop())
// Whoever started us ends a program that does not answer.
process.on('message', (message) => {
  if (message === 'ping') process.send?.('pong')
})
// Ctrl-C reaches the whole group; the start command decides when to end us.
process.on('SIGINT', () => undefined)
process.on('disconnect', () => void stop())
