import { execFileSync } from 'node:child_process'
import { mkdirSync, renameSync, rmSync, truncateSync, utimesSync, writeFileSync, statSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import type { RepairView } from '../../contract/repair'
import type { RulesView } from '../../contract/rules'
import { copyOfBooks, markOnDrives, newestMark, putBooksBack } from '../clear/recordsCopy'
import { canMount } from '../clear/mounts'
import { until } from '../clear/station'
import { mirrored, removeIfThere, rewrite, shiftTimes, type World } from './world'

/** What the model remembers between commands; the world itself is the truth. */
export type Model = Record<string, never>

/** One thing that happens in a world: `draw` decides which file, drive or card. `ours` is done by the programs. */
interface Act {
  readonly name: string
  readonly ours: boolean
  /** Without it little else happens. */
  readonly often?: boolean
  can(world: World): boolean
  run(world: World, draw: number): Promise<void> | void
}

/** Two turns of the observer. */
const TOLD_MS = 7000

const pick = <T>(items: readonly T[], draw: number): T | undefined => items[draw % Math.max(1, items.length)]
const inDrives = (world: World) => world.drives.filter((drive) => drive.place.isIn)
const isMounted = ({ place }: World['drives'][number]) => place.kind !== 'folder'
const someLoad = async (world: World, draw: number) => pick(await world.loads(), draw)

const clipsOn = (world: World) => [...(world.held?.files.keys() ?? [])].filter((path) => path.endsWith('.MP4'))

/** After something was done to the card in the reader. */
const onCard = (act: (root: string, world: World, draw: number) => void) => (world: World, draw: number) => {
  act(world.reader.at, world, draw)
  world.readHeld()
}
const held = (world: World) => world.held !== undefined && world.reader.isIn
/** It can be taken out: nothing of it is shown elsewhere. */
const free = (world: World) => held(world) && !world.isBound

function removeCard(world: World): void {
  world.readHeld()
  world.reader.out(world.held?.image)
  world.held = undefined
}

function insertCard(world: World, draw: number): void {
  const card = pick([...world.cards.values()], draw)
  if (!card) return
  world.reader.putIn(card.image)
  world.held = card
  world.readHeld()
}

export const ACTS: readonly Act[] = [
  {
    name: 'scan the card',
    ours: true,
    often: true,
    can: held,
    run: async (world) => {
      const body = { productionId: world.productionId, label: world.held?.name ?? '' }
      await world.task(`/readers/${world.readerId}/scan`, body)
      const reader = await world.inReader()
      // Of two cards with one number and one beginning that went on differently, the one that was looked at last is the
      // load’s.
      if (reader?.loadId && !reader.difference && world.held) world.loadCards.set(reader.loadId, world.held.name)
    },
  },
  {
    name: 'copy to two drives',
    ours: true,
    often: true,
    can: () => true,
    run: async (world, draw) => {
      const load = await someLoad(world, draw)
      const first = draw % world.drives.length
      const volumeIds = [0, 1].flatMap((more) => world.drives[(first + more) % world.drives.length]?.volumeId ?? [])
      if (load) await world.task(`/loads/${load.id}/copies`, { volumeIds, setAside: draw % 7 === 0 })
    },
  },
  {
    name: 'copy from drive to drive',
    ours: true,
    can: () => true,
    run: async (world, draw) => {
      const load = await someLoad(world, draw)
      const [from, to] = [0, 1].map((more) => world.drives[(draw + more) % world.drives.length]?.volumeId)
      if (load) await world.task(`/loads/${load.id}/copies`, { volumeIds: [to], from })
    },
  },
  {
    name: 'play from every copy',
    ours: true,
    often: true,
    can: () => true,
    run: async (world) => {
      for (const { loadId, copies } of await world.answers()) {
        const { rows } = await world.get<{ rows: { id: string }[] }>(
          `/productions/${world.productionId}/clips?show=playable&loadId=${loadId}&limit=1`,
        )
        for (const copy of copies)
          if (rows[0])
            await world.station.post(`/loads/${loadId}/spot-plays`, {
              ...{ volumeId: copy.volumeId, clipId: rows[0].id, seconds: 1 },
            })
      }
    },
  },
  {
    name: 'read a copy again',
    ours: true,
    can: () => true,
    run: async (world, draw) => {
      const load = await someLoad(world, draw)
      const drive = pick(world.drives, draw >> 3)
      if (load && drive)
        await world.task(`/loads/${load.id}/checks`, {
          volumeIds: [drive.volumeId],
          how: draw % 2 ? 'whole' : 'sample',
        })
    },
  },
  {
    name: 'repair what is not as it was proved',
    ours: true,
    can: () => true,
    run: async (world, draw) => {
      const load = await someLoad(world, draw)
      if (!load) return
      const { decisions, steps } = await world.get<RepairView>(`/repair?loadId=${load.id}`)
      if (steps.length > 0) await world.task('/repair', { loadId: load.id, decisions })
    },
  },
  {
    name: 'choose another rule, or the usual one',
    ours: true,
    can: () => true,
    run: async (world, draw) => {
      const { rules } = await world.get<RulesView>('/clear-rules')
      const ruleId = draw % 2 ? null : (pick(rules, draw >> 1)?.id ?? null)
      await world.station.send('PUT', `/productions/${world.productionId}/rule`, { ruleId })
    },
  },
  {
    name: 'read the card whole',
    ours: true,
    can: held,
    run: async (world, draw) => {
      const load = await someLoad(world, draw)
      if (load) await world.task(`/loads/${load.id}/card/read`)
    },
  },
  {
    name: 'keep or reject, and sort',
    ours: true,
    can: () => true,
    run: async (world, draw) => {
      const { rows } = await world.get<{ rows: { id: string }[] }>(`/productions/${world.productionId}/clips?limit=50`)
      const verdict = draw % 3 === 0 ? 'reject' : 'keep'
      for (const { id } of rows)
        await world.station.send('PUT', `/clips/${id}/review`, { verdict, ranges: [], note: '', shotId: null })
      const drive = pick(world.drives, draw >> 2)
      const links = (['copy', 'hard', 'reflink'] as const)[draw % 3]
      const view = { template: [{ path: 'Video', takes: 'a-roll' }], aRoll: [], which: 'keep', editBegun: false }
      await world.station.send('PUT', `/productions/${world.productionId}/sorted`, {
        ...view,
        ...{ links, volumeId: drive?.volumeId },
      })
      await world.task(`/productions/${world.productionId}/sorted`)
    },
  },
  {
    name: 'format, where the answer is yes, and film anew',
    ours: false,
    can: held,
    run: async (world) => {
      const reader = await world.inReader()
      const answer = (await world.answers()).find((one) => one.loadId === reader?.loadId && one.clear.clear)
      if (!answer) return
      if ((await world.station.post(`/loads/${answer.loadId}/formatted`)).status !== 204) return
      rmSync(join(world.reader.at, 'DCIM'), { recursive: true, force: true })
      world.film(world.reader.at, world.nextClip(), `anew ${world.steps}`)
      world.readHeld()
    },
  },
  { name: 'take the card out', ours: false, can: free, run: removeCard },
  { name: 'put a card in', ours: false, can: (world) => !held(world), run: insertCard },
  {
    name: 'swap cards within a moment',
    ours: false,
    can: free,
    run: (world, draw) => {
      removeCard(world)
      insertCard(world, draw)
    },
  },
  {
    name: 'film one more',
    ours: false,
    can: held,
    run: onCard((root, world) => world.film(root, world.nextClip(), `more ${world.steps}`)),
  },
  {
    name: 'write a clip anew with its size and time kept',
    ours: false,
    // A file system that keeps no numbers does not tell, and nobody writes on a card in a reader but a computer.
    can: (world) => held(world) && world.reader.kind !== 'exfat' && clipsOn(world).length > 0,
    run: onCard((root, world, draw) => rewrite(join(root, pick(clipsOn(world), draw) ?? ''))),
  },
  {
    name: 'delete a clip of the card',
    ours: false,
    can: (world) => held(world) && clipsOn(world).length > 1,
    run: onCard((root, world, draw) => removeIfThere(join(root, pick(clipsOn(world), draw) ?? ''))),
  },
  {
    name: 'take a drive out',
    ours: false,
    can: (world) => inDrives(world).some((drive) => drive.bound.length === 0),
    run: (world, draw) => {
      const drive = pick(
        inDrives(world).filter((one) => one.bound.length === 0),
        draw,
      )
      if (!drive) return
      world.onDrive(world.drives.indexOf(drive))
      drive.place.out()
    },
  },
  {
    name: 'put the drives in',
    ours: false,
    can: (world) => inDrives(world).length < world.drives.length,
    run: (world) => {
      for (const drive of world.drives) if (!drive.place.isIn) drive.place.putIn()
    },
  },
  {
    name: 'harm a file of a copy',
    ours: false,
    can: (world) => inDrives(world).length > 0,
    run: (world, draw) => {
      const drive = pick(inDrives(world), draw)
      const path =
        drive &&
        pick(
          mirrored(drive.place.at).filter((one) => !drive.bound.some((at) => one.startsWith(at))),
          draw >> 4,
        )
      if (!drive || path === undefined) return
      const full = join(drive.place.at, path)
      const { atime, mtime, size } = statSync(full)
      // What no listing can tell on file systems that keep no numbers is left to reading again.
      const how = (['remove', 'cut', 'away and back', 'replace'] as const)[
        draw % (drive.place.kind === 'exfat' ? 2 : 4)
      ]
      if (how === 'remove') rmSync(full)
      else if (how === 'replace') rewrite(full)
      else if (how === 'cut') {
        truncateSync(full, size - 5)
        utimesSync(full, atime, mtime)
      } else {
        renameSync(full, `${full} away`)
        renameSync(`${full} away`, full)
      }
    },
  },
  {
    name: 'mount something in the place of a copy, or take it away',
    ours: false,
    can: (world) => canMount && (held(world) || inDrives(world).some((drive) => drive.bound.length > 0)),
    run: (world, draw) => {
      const bound = inDrives(world).find((drive) => drive.bound.length > 0)
      if (bound) {
        for (const path of bound.bound.splice(0)) execFileSync('umount', ['-l', join(bound.place.at, path)])
        return
      }
      const drive = pick(inDrives(world), draw)
      const clip = drive && pick(mirrored(drive.place.at), draw >> 4)
      const from = join(world.reader.at, 'DCIM/100CURLW')
      if (!drive || clip === undefined) return
      world.onDrive(world.drives.indexOf(drive))
      const path = clip.slice(0, clip.lastIndexOf('/'))
      mkdirSync(from, { recursive: true })
      execFileSync('mount', ['--bind', from, join(drive.place.at, path)])
      drive.bound.push(path)
    },
  },
  {
    name: 'the clock of a drive moves by an hour',
    ours: false,
    can: (world) => inDrives(world).length > 0,
    run: (world, draw) => {
      const drive = pick(
        inDrives(world).filter((one) => one.bound.length === 0),
        draw,
      )
      if (drive) shiftTimes(drive.place.at, 3_600_000)
    },
  },
  {
    name: 'a drive is full, or has room again',
    ours: false,
    // A folder would fill the disk of the computer itself.
    can: (world) => inDrives(world).some(isMounted),
    run: (world, draw) => {
      const drive = pick(inDrives(world).filter(isMounted), draw)
      if (!drive) return
      const path = join(drive.place.at, 'FILLING.BIN')
      if (statSync(path, { throwIfNoEntry: false })) rmSync(path)
      else
        try {
          writeFileSync(path, Buffer.alloc(1024))
          execFileSync('sh', ['-c', 'dd if=/dev/zero of="$1" bs=1M 2>/dev/null || true', 'sh', path])
        } catch {
          // It was full before.
        }
    },
  },
  {
    name: 'the worker is killed in mid-copy',
    ours: true,
    can: () => true,
    run: async (world, draw) => {
      const load = await someLoad(world, draw)
      const volumeIds = world.drives.slice(0, 2).map((drive) => drive.volumeId)
      const order = load && (await world.station.post(`/loads/${load.id}/copies`, { volumeIds }))
      await new Promise((resolve) => setTimeout(resolve, draw % 400))
      world.station.worker().kill('SIGKILL')
      await world.station.startWorker()
      if (order?.status === 202) await world.station.ended(String(order.body.taskId))
    },
  },
  {
    name: 'the books are copied, or come back as they were',
    ours: true,
    // A drive that is away cannot tell that they are older.
    can: (world) => world.booksCopy === undefined || inDrives(world).length === world.drives.length,
    run: async (world) => {
      const { station, booksCopy } = world
      if (booksCopy === undefined) {
        world.booksCopy = { text: copyOfBooks(station), marks: newestMark(station) }
        return
      }
      // Drives are told within seconds; where nothing has become different there is nothing to tell.
      await until(
        () => Promise.resolve(markOnDrives(station)),
        (marks) => marks > booksCopy.marks,
        TOLD_MS,
      ).catch(() => undefined)
      await putBooksBack(station, booksCopy.text)
      world.booksCopy = undefined
    },
  },
]

class Happens implements fc.AsyncCommand<Model, World> {
  constructor(
    readonly act: Act,
    readonly draw: number,
    readonly tell: (name: string) => void,
  ) {}

  check = (): boolean => true

  async run(_: Model, world: World): Promise<void> {
    if (!this.act.can(world)) return
    world.steps += 1
    this.tell(this.act.name)
    const before = this.act.ours ? world.everything() : new Set<string>()
    try {
      await this.act.run(world, this.draw)
    } catch (error) {
      // Nobody can do to a full drive what needs room.
      if (this.act.ours || (error as NodeJS.ErrnoException).code !== 'ENOSPC') throw error
    }
    const lie = await world.lie()
    if (lie !== undefined) throw new Error(lie)
    if (!this.act.ours) return
    const after = world.everything()
    const lost = [...before].filter((hash) => !after.has(hash) && world.isFootage(hash))
    if (lost.length > 0) throw new Error(`${this.act.name} destroyed the last of ${lost.join()}`)
  }

  toString = (): string => `${this.act.name} (${this.draw})`
}

/** The way of a good day: looked at, copied, played. */
export async function goodDay(world: World): Promise<void> {
  for (const act of ACTS.filter((one) => one.often)) await act.run(world, 0)
}

/** Commands for a walk through a world; `tell` hears what happens. */
export const happenings = (most: number, tell: (name: string) => void) =>
  fc.commands(
    ACTS.flatMap((act) => (act.often ? [act, act, act] : [act])).map((act) =>
      fc.nat(9999).map((draw) => new Happens(act, draw, tell)),
    ),
    { maxCommands: most, size: 'max' },
  )
