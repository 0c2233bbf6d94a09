import { clockIn, zoneHere } from '../../core/units/day'
import { goodNight, type NightWork } from '../../core/line/goodNight'
import { counted, formatBytes, formatLength } from '../../core/units/quantity'
import { TASK_KINDS } from '../../contract/taskKinds'
import type { StateView } from '../../contract/state'
import type { Db } from '../db/connection'
import { hasBench } from '../db/queries/bench'
import { loadsById } from '../db/queries/cards'
import { copyQueue } from '../db/queries/copyQueue'
import { sleptLately } from '../db/queries/journal'
import { readers } from '../db/queries/readers'
import { readStory } from '../db/queries/settings'
import { recentTasks } from '../db/queries/tasks'
import { volumes } from '../db/queries/volumes'
import { copyRows, planFrom } from './copyPlan'

/** Room that the disk of the records must have, in bytes: below it the person is told before it ends. */
const LEAST_ROOM_BYTES = 1e9
const LATELY_MS = 16 * 3_600_000

type Task = Awaited<ReturnType<typeof recentTasks>>[number]

/** What goes on and what waits, in one sentence, and what must be known of this computer. */
export async function stateOf(
  db: Db,
  {
    host,
    now,
    booksFreeBytes,
  }: { readonly host: string; readonly now: number; readonly booksFreeBytes: number | undefined },
): Promise<StateView> {
  const [tasks, slept, story, practice] = await Promise.all([
    recentTasks(db, 30),
    sleptLately(db, new Date(now - LATELY_MS)),
    readStory(db),
    hasBench(db),
  ])
  const [works, waits] = await Promise.all([worksOf(db, host, tasks), waitsOf(db, host, tasks, now)])
  const clock = (seconds: number) => clockIn(zoneHere(), now + seconds * 1000)
  const notices = slept.map(({ at, ms }) => {
    const woke = clockIn(zoneHere(), at.getTime())
    return (
      `The computer slept for ${formatLength(Math.round(ms / 1000))} and woke at ${woke}: nothing was ` +
      'copied meanwhile.'
    )
  })
  if (booksFreeBytes !== undefined && booksFreeBytes < LEAST_ROOM_BYTES)
    notices.unshift(
      `The disk with Yendra’s records has ${formatBytes(booksFreeBytes)} left. Make room on it: when ` +
        'it is full, nothing can be written down, and nothing more is proved.',
    )
  return { goodNight: goodNight(works, waits, clock) ?? null, notices, demo: story.says, hasBench: practice }
}

const IS_OPEN: readonly string[] = ['queued', 'running', 'paused']

/** Work that is under way, then what waits in the queue of copies, each with when it will be done. */
async function worksOf(db: Db, host: string, tasks: readonly Task[]): Promise<NightWork[]> {
  const open = tasks.filter((task) => IS_OPEN.includes(task.state) && task.host === host)
  const queue = await copyQueue(db, host)
  const loads = await loadsById(db, [...open.flatMap((task) => task.loadId ?? []), ...queue.map((one) => one.loadId)])
  const labelOf = (loadId: string | null) => loads.find((load) => load.id === loadId)?.label
  const works = open.map((task): NightWork => {
    const { total = 0, done = 0, perSecond = 0 } = task.progress ?? {}
    const seconds = total > 0 && perSecond > 0 ? (total - done) / perSecond : undefined
    return {
      label: labelOf(task.loadId) ?? task.title,
      kind: task.kind === 'copy' ? 'copy' : 'other',
      endsInSeconds: task.state === 'running' ? seconds : undefined,
      paused: task.state === 'paused',
    }
  })
  let after = works.filter((work) => work.kind === 'copy').reduce<number | undefined>(sumOf, 0)
  for (const { loadId, volumeIds, label } of queue) {
    const load = loads.find((one) => one.id === loadId)
    const seconds = load ? planFrom(await copyRows(db, host, load), volumeIds).seconds : undefined
    after = after === undefined || seconds === undefined ? undefined : after + seconds
    works.push({ label, kind: 'copy', endsInSeconds: after, paused: false })
  }
  return works
}

const sumOf = (sum: number | undefined, work: NightWork): number | undefined =>
  sum === undefined || work.endsInSeconds === undefined ? undefined : Math.max(sum, work.endsInSeconds)

/**
 * What needs a person before morning: cards that nobody scanned or that differ, work that failed, drives that are full.
 */
async function waitsOf(db: Db, host: string, tasks: readonly Task[], now: number): Promise<string[]> {
  const [inReaders, known] = await Promise.all([readers(db), volumes(db, host)])
  const held = inReaders.filter((row) => row.host === host && row.putAwayAt === null && row.state === 'card')
  const looking = new Set(
    tasks.filter((task) => task.kind === 'scan' && IS_OPEN.includes(task.state)).map((task) => task.subject),
  )
  const unlooked = held.filter((row) => !row.same && !looking.has(row.id)).map((row) => row.cardName ?? row.name)
  const failed = tasks.filter(
    (task) =>
      (task.state === 'failed' || task.state === 'set-aside' || (task.state === 'done' && task.troubles.length > 0)) &&
      TASK_KINDS[task.kind].line === 'files' &&
      task.endedAt !== null &&
      now - task.endedAt.getTime() < LATELY_MS &&
      !tasks.some(
        (later) => later.kind === task.kind && later.subject === task.subject && later.createdAt > task.createdAt,
      ),
  )
  const away = known.filter((row) => row.connected !== true && row.rootPath !== null && row.putAwayAt === null)
  const wanted = new Set((await copyQueue(db, host)).flatMap((one) => one.volumeIds))
  return [
    ...unlooked.map((name) => `“${name}” is not scanned`),
    ...(failed.length > 0 ? [`${counted(failed.length, 'task')} did not go through`] : []),
    ...away.filter((row) => wanted.has(row.id)).map((row) => `${row.name} is not connected`),
  ]
}
