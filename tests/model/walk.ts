import { execFileSync } from 'node:child_process'
import { closeSync, mkdirSync, openSync, truncateSync } from 'node:fs'
import { join } from 'node:path'
import fc from 'fast-check'
import type { TaskView } from '../../contract/tasks'
import { canBtrfs, canExfat, canMount } from '../clear/mounts'
import { until, type Station } from '../clear/station'
import { goodDay, happenings } from './acts'
import {
  cloneImage,
  contentOf,
  FolderPlace,
  MountPlace,
  otherMiddles,
  World,
  type DriveKind,
  type Place,
} from './world'

const MAKE: Record<Exclude<DriveKind, 'folder'>, readonly [bytes: number, program: string, ...more: string[]]> = {
  ext4: [64 * 1024 ** 2, 'mkfs.ext4', '-q', '-F'],
  btrfs: [128 * 1024 ** 2, 'mkfs.btrfs', '-q', '-f'],
  exfat: [48 * 1024 ** 2, 'mkfs.exfat'],
}

/** A new file system in an image, mounted at a place; a folder where nothing can be mounted. */
function place(root: string, name: string, kind: DriveKind): { place: Place; image: string } {
  const at = join(root, name)
  if (kind === 'folder') {
    mkdirSync(at, { recursive: true })
    return { place: new FolderPlace(name, at, `${at} away`), image: `${at} away` }
  }
  const image = join(root, `${name}.img`)
  const [bytes, program, ...more] = MAKE[kind]
  closeSync(openSync(image, 'w'))
  truncateSync(image, bytes)
  execFileSync(program, [...more, image], { stdio: ['ignore', 'ignore', 'pipe'] })
  return { place: new MountPlace(name, at, image, kind), image }
}

let worlds = 0

/** A reader with a card, a card that looks just like it, one of another shoot, and three drives of different kinds. */
async function newWorld(station: Station, real: boolean, seed: number): Promise<World> {
  worlds += 1
  const root = join(station.root, `model ${worlds}`)
  mkdirSync(root)
  const cardKind: DriveKind = !real ? 'folder' : canExfat && seed % 3 === 0 ? 'exfat' : 'ext4'
  const { place: reader, image } = place(root, 'reader', cardKind)
  const world = new World(station, root, reader)
  for (const turn of [1, 2, 3]) world.film(reader.at, world.nextClip(), `ribs ${seed} ${turn}`)
  // A folder is put away under a name of its own; an image stays where it is.
  const first = { name: 'Curlew A', image: real ? image : `${image} A`, files: contentOf(reader.at) }
  reader.out(first.image)
  world.cards.set(first.name, first)
  for (const [name, change] of [
    ['Curlew B', (at: string) => otherMiddles(at)],
    ['Plover A', (at: string) => world.film(at, world.nextClip(), `launch ${seed}`)],
  ] as const) {
    const copy = `${image} ${name}`
    cloneImage(first.image, copy)
    reader.putIn(copy)
    change(reader.at)
    const files = contentOf(reader.at)
    reader.out(copy)
    world.cards.set(name, { name, image: copy, files })
  }
  const kinds: readonly DriveKind[] = real
    ? ['ext4', canBtrfs ? 'btrfs' : 'ext4', canExfat ? 'exfat' : 'ext4']
    : ['folder', 'folder', 'folder']
  const post = async (path: string, body: object) => String((await station.post(path, body)).body.id)
  world.title = `Model ${worlds}`
  world.productionId = await post('/productions', { title: world.title })
  reader.putIn(world.cards.get('Curlew A')?.image)
  world.held = world.cards.get('Curlew A')
  world.readHeld()
  if (!real) station.device(reader.at, reader.at)
  world.readerId = await post('/readers', { name: `model reader ${worlds}`, path: reader.at, sure: true })
  for (const [at, kind] of kinds.entries()) {
    const drive = place(root, `drive ${at}`, kind)
    if (!real) station.device(drive.place.at, drive.place.at)
    const volumeId = await post('/volumes', {
      ...{ name: `Model ${worlds} drive ${at}`, kind: 'archive', site: 'house', path: drive.place.at, sure: true },
    })
    world.drives.push({ place: drive.place, volumeId, away: new Map(), bound: [] })
  }
  return world
}

/** What a walk came to. */
export interface Walked {
  readonly steps: number
  /** How often an answer was yes: a walk without any says little. */
  readonly yes: number
  readonly counts: Record<string, number>
}

/**
 * One world from its beginning until it rests. Throws where a yes would lose a byte, where the last file with some
 * footage was removed by the programs, or where work is left that nobody does.
 */
export async function walk(station: Station, seed: number, most: number, real = canMount): Promise<Walked> {
  const counts: Record<string, number> = {}
  let steps = 0
  let yes = 0
  const tell = (name: string) => {
    counts[name] = (counts[name] ?? 0) + 1
    steps += 1
  }
  await fc.assert(
    fc.asyncProperty(happenings(most, tell), async (commands) => {
      const world = await newWorld(station, real, seed)
      try {
        if (seed % 3 !== 1) await goodDay(world)
        await fc.asyncModelRun(() => ({ model: {}, real: world }), commands)
        await rest(station, world)
        yes += world.yes
      } finally {
        await leave(station, world)
      }
    }),
    { numRuns: 1, seed, endOnFailure: true },
  )
  return { steps, yes, counts }
}

/** Everything that was begun comes to its end. */
async function rest(station: Station, world: World): Promise<void> {
  const isOpen = ({ state }: TaskView) => ['queued', 'running', 'paused'].includes(state)
  const open = async () =>
    (await station.get<TaskView[]>('/tasks')).filter((task) => task.productionId === world.productionId && isOpen(task))
  const left = await until(open, (tasks) => tasks.length === 0)
  if (left.length > 0) throw new Error(`nobody ends “${left[0]?.title}” (${left[0]?.state})`)
  const lie = await world.lie()
  if (lie !== undefined) throw new Error(lie)
}

/** Takes a world down, so that the next one is alone. */
async function leave(station: Station, world: World): Promise<void> {
  for (const drive of world.drives) {
    for (const path of drive.bound)
      execFileSync('sh', ['-c', 'umount -l "$1" || true', 'sh', join(drive.place.at, path)])
    await station.send('PUT', `/volumes/${drive.volumeId}/away`, { away: true }).catch(() => undefined)
    if (drive.place.isIn && !(drive.place instanceof FolderPlace)) drive.place.out()
  }
  if (world.reader.isIn && !(world.reader instanceof FolderPlace)) world.reader.out()
  execFileSync('rm', ['-rf', world.root])
}
