import { createHash } from 'node:crypto'
import { describe, expect, it } from 'vitest'
import { parseChecksumList } from '../../core/copies/lists/format'

import { writeBag } from '../../server/engine/bag/bag'
import { checkCopy } from '../../server/engine/copy/check'
import { copyTree } from '../../server/engine/copy/copy'
import { FolderMedium } from '../../server/engine/medium/folder'
import { readBack } from '../../server/engine/copy/hash'
import { writeLists } from '../../server/engine/copy/lists'
import { publishNew, publishOver, setAside, settleName, settlePublished } from '../../server/engine/copy/publish'
import { walk } from '../../server/engine/medium/walk'
import { isLong } from '../long'
import { Power, PowerDisk, type Aftermath } from './powerDisk'
import { commit, gate, hashOf, keep, memory, partsOf, path, type Card, type Story, type World } from './powerWorld'
import { repairingOf } from './repairing'

const CARD: Card = {
  'DCIM/100CURLW/CURL0041.THM': Buffer.alloc(5000, 'Curlew'),
  'DCIM/100CURLW/CURL0041.XML': Buffer.from('<clip/>'),
  'DCIM/101CURLW/two\nlines.TXT': Buffer.from('odd'),
  'EMPTY.TXT': Buffer.alloc(0),
}

/** Nothing on it is copied in a batch, so that nothing waits for the whole file system. */
const LARGE_CLIP: Card = { 'DCIM/100CURLW/CURL0041.MP4': Buffer.alloc(1_100_000, 'Curlew') }

function newWorld({ card: content = CARD }: Story): World {
  const power = new Power()
  const card = new PowerDisk('card', power)
  for (const [name, bytes] of Object.entries(content)) card.put(name, bytes)
  card.settleAll()
  const drives = ['slipway', 'tide'].map((name) => new PowerDisk(name, power))
  return { power, content, card, drives, ledger: { proofs: new Map() }, attempt: 0 }
}

async function copyCard(world: World): Promise<void> {
  world.attempt += 1
  const source = new FolderMedium('', world.card)
  const entries = await walk(source)
  const media = world.drives.map((drive) => new FolderMedium('', drive))
  // Attempts before this one are dead, and their parts are removed.
  for (const medium of media) await medium.remove(path('.yendra/parts'))
  const files = entries.filter((entry) => entry.kind === 'file')
  await copyTree({
    source,
    files: files.map((file, id) => ({ ...file, id, wantedBy: new Set(['0', '1']) })),
    folders: entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path),
    destinations: media.map((medium, at) => ({
      id: String(at),
      medium,
      folder: path('Mirror'),
      parts: partsOf(world),
    })),
    gate,
    memory,
    onBytes: () => undefined,
    report: (records) => {
      const lost = records.find((record) => record.kind === 'destination-failed' || record.kind === 'source-failed')
      if (lost) return Promise.reject(new Error('The power is gone.'))
      return keep(world, records, (id) => files[id]?.path.toString('latin1') ?? '')
    },
  })
  const proved = files.map((file) => ({
    path: file.path,
    hash: hashOf(world.content[file.path.toString('latin1')] ?? Buffer.alloc(0)),
  }))
  for (const medium of media)
    await writeLists({ medium, folder: path('Mirror'), parts: partsOf(world), files: proved, gate })
  for (const medium of media) await medium.remove(partsOf(world))
}

/** Whatever is written down as proved is there and equal, and whatever has a name is whole. */
function provedIsTrue({ ledger, drives, content: card }: World): void {
  for (const [key, hash] of ledger.proofs) {
    const at = key.indexOf(' ')
    const content = drives[Number(key.slice(0, at))]?.files('Mirror').get(key.slice(at + 1))
    expect(content && hashOf(content), `proved: ${key}`).toBe(hash)
  }
  for (const drive of drives)
    for (const [name, content] of drive.files('Mirror'))
      expect(content.equals(card[name] ?? Buffer.from('?')), name).toBe(true)
}

function listsAreTrue({ drives }: World): void {
  for (const drive of drives) {
    for (const [ending, sum] of [
      ['xxh64', hashOf],
      ['sha256', (content: Buffer) => createHash('sha256').update(content).digest('hex')],
    ] as const) {
      const list = drive.files().get(`Mirror.${ending}`)
      if (!list) continue
      for (const { hash, path: listed } of parseChecksumList(list.toString('latin1')))
        expect(hash, `${ending}: ${listed}`).toBe(sum(drive.files().get(listed) ?? Buffer.alloc(0)))
    }
  }
}

const wholeMirrors = (world: World) => {
  for (const drive of world.drives) {
    expect([...drive.files('Mirror').keys()].sort()).toEqual(Object.keys(world.content).sort())
    expect([...drive.files().keys()].filter((name) => name.startsWith('Mirror.')).sort()).toEqual([
      'Mirror.sha256',
      'Mirror.xxh64',
    ])
  }
  expect(world.ledger.proofs.size).toBe(Object.keys(world.content).length * 2)
  provedIsTrue(world)
  listsAreTrue(world)
}

const copying: Story = {
  prepare: () => undefined,
  run: copyCard,
  holds: (world) => {
    provedIsTrue(world)
    listsAreTrue(world)
  },
  done: wholeMirrors,
}

/** Files that another program copied there by hand, and nobody waited for. */
const foundThere: Story = {
  ...copying,
  prepare: ({ drives, content: card }) => {
    for (const [name, content] of Object.entries(card)) drives[0]?.put(`Mirror/${name}`, content)
  },
  holds: ({ ledger, drives }) => {
    for (const [key, hash] of ledger.proofs) {
      const at = key.indexOf(' ')
      const content = drives[Number(key.slice(0, at))]?.files('Mirror').get(key.slice(at + 1))
      expect(content && hashOf(content), `proved: ${key}`).toBe(hash)
    }
  },
  // What was there half-written by the other program is a conflict for the person, and is not proved.
  done: ({ drives, content }) => expect(drives[1]?.files('Mirror').size).toBe(Object.keys(content).length),
}

const copyingLarge: Story = { ...copying, card: LARGE_CLIP, done: provedIsTrue }
const foundLarge: Story = { ...foundThere, card: LARGE_CLIP }

/** A copy is read again, though somebody put its files there by hand. */
const checking: Story = {
  ...foundThere,
  proves: Object.keys(CARD).length,
  done: ({ ledger }) => expect(ledger.proofs.size).toBeLessThanOrEqual(Object.keys(CARD).length),
  run: async (world) => {
    const names = Object.keys(world.content)
    const [drive] = world.drives
    if (!drive) throw new Error('no drive')
    world.ledger.proofs.clear()
    await checkCopy({
      destinationId: '0',
      medium: new FolderMedium('', drive),
      folder: path('Mirror'),
      files: names.map((name, id) => ({
        id,
        path: path(name),
        sizeBytes: world.content[name]?.length ?? 0,
        hash: hashOf(world.content[name] ?? Buffer.alloc(0)),
      })),
      gate,
      onBytes: () => undefined,
      report: (records) => keep(world, records, (id) => names[id] ?? ''),
    })
  },
}

const checkingLarge: Story = { ...checking, card: LARGE_CLIP, proves: 1 }

/** So many that the medium is waited for once, and not file by file. */
const MANY: Card = Object.fromEntries(
  Array.from({ length: 17 }, (_, at) => [`DCIM/100CURLW/F${at}.XML`, Buffer.from(`<clip ${at}/>`)]),
)
const checkingMany: Story = {
  ...checking,
  card: MANY,
  proves: 17,
  done: ({ ledger }) => expect(ledger.proofs.size).toBeLessThanOrEqual(17),
}

const FILM = Buffer.alloc(60_000, 'film')
const OLD_FILM = Buffer.alloc(9_000, 'old film')

/** What an outside program wrote as a part, without waiting for the medium. */
const writtenPart = (world: World) => {
  world.attempt += 1
  world.drives[0]?.put(`.yendra/parts/${world.attempt}/film.mp4`, FILM)
  return path(`.yendra/parts/${world.attempt}/film.mp4`)
}
const firstDrive = (world: World) => {
  const [drive] = world.drives
  if (!drive) throw new Error('no drive')
  return drive
}
const filmIsWhole = (world: World, name: string, also: Buffer[] = []) => {
  const content = firstDrive(world).files().get(name)
  if (content)
    expect(
      [FILM, ...also].some((whole) => whole.equals(content)),
      name,
    ).toBe(true)
  if (world.ledger.proofs.has(name)) expect(content?.equals(FILM), `proved: ${name}`).toBe(true)
}

/** A deliverable, or a proxy for the first time: it gets its name, then its row. */
const publishing: Story = {
  prepare: () => undefined,
  run: async (world) => {
    const medium = new FolderMedium('', firstDrive(world))
    const part = writtenPart(world)
    const film = path('Ribs/Output/film.mp4')
    if (firstDrive(world).files().has('Ribs/Output/film.mp4')) await settlePublished(medium, film)
    else await publishNew(medium, part, film)
    commit(world, () => world.ledger.proofs.set('Ribs/Output/film.mp4', hashOf(FILM)))
  },
  holds: (world) => filmIsWhole(world, 'Ribs/Output/film.mp4'),
  done: (world) => expect(firstDrive(world).files().get('Ribs/Output/film.mp4')?.equals(FILM)).toBe(true),
}

/** What lies there by its name already is taken as it is, once it is waited for. */
const adopting: Story = {
  ...publishing,
  run: async (world) => {
    const medium = new FolderMedium('', firstDrive(world))
    const film = path('Ribs/Output/film.mp4')
    if (!firstDrive(world).files().has('Ribs/Output/film.mp4')) return
    const { hash } = await readBack(medium, film, memory.proving.slice(0, 1), () => undefined, gate)
    if (hash !== hashOf(FILM)) return
    await settlePublished(medium, film)
    commit(world, () => world.ledger.proofs.set('Ribs/Output/film.mp4', hash))
  },
  prepare: (world) => firstDrive(world).put('Ribs/Output/film.mp4', FILM),
  // Before that it is the other program's file, whole or not.
  holds: (world) => {
    if (world.ledger.proofs.size > 0) filmIsWhole(world, 'Ribs/Output/film.mp4')
  },
  done: () => undefined,
}

/** A proxy made anew: at every moment the old one or the new one is there, whole. */
const publishingOver: Story = {
  prepare: (world) => {
    firstDrive(world).put('Ribs/Proxies/film.mp4', OLD_FILM)
    firstDrive(world).settleAll()
  },
  run: async (world) => {
    await publishOver(new FolderMedium('', firstDrive(world)), writtenPart(world), path('Ribs/Proxies/film.mp4'))
    commit(world, () => world.ledger.proofs.set('Ribs/Proxies/film.mp4', hashOf(FILM)))
  },
  holds: (world) => {
    expect(firstDrive(world).files().has('Ribs/Proxies/film.mp4')).toBe(true)
    filmIsWhole(world, 'Ribs/Proxies/film.mp4', [OLD_FILM])
  },
  done: (world) => expect(firstDrive(world).files().get('Ribs/Proxies/film.mp4')?.equals(FILM)).toBe(true),
}

/** Something of the person’s own is moved out of the way, and is told to lie there. */
const settingAside: Story = {
  prepare: (world) => {
    firstDrive(world).put('Mirror/notes.txt', FILM)
    firstDrive(world).settleAll()
  },
  run: async (world) => {
    const medium = new FolderMedium('', firstDrive(world))
    await setAside(medium, path('Mirror/notes.txt'), path('Set aside/1/notes.txt'))
    commit(world, () => world.ledger.proofs.set('Set aside/1/notes.txt', hashOf(FILM)))
  },
  holds: (world) => {
    const places = ['Mirror/notes.txt', 'Set aside/1/notes.txt'].filter((name) =>
      firstDrive(world).files().get(name)?.equals(FILM),
    )
    // A rename that reached one folder only may show it twice, or in the first place still; it is told to be away only
    // when it is.
    if (world.ledger.proofs.size > 0) expect(places).toEqual(['Set aside/1/notes.txt'])
  },
  done: (world) => expect(firstDrive(world).files().get('Set aside/1/notes.txt')?.equals(FILM)).toBe(true),
}

/** A bag has its name only whole, and its row only when the name is durable. */
const bagging: Story = {
  prepare: ({ drives }) => {
    drives[1]?.put('Ribs/Output/film.mp4', FILM)
    drives[1]?.settleAll()
  },
  run: async (world) => {
    world.attempt += 1
    const [target, source] = world.drives.map((drive) => new FolderMedium('', drive))
    if (!target || !source) throw new Error('no drives')
    const payload = [{ medium: source, path: path('Ribs/Output/film.mp4'), name: 'film.mp4', modifiedMs: 1 }]
    if (firstDrive(world).files('Ribs/Shelf/film').size > 0) await settleName(target, path('Ribs/Shelf/film'))
    else
      await writeBag({
        target,
        folder: path('Ribs/Shelf/film'),
        parts: partsOf(world),
        payload,
        notes: [{ name: 'note.txt', text: 'note' }],
        info: [],
        gate,
        onBytes: () => undefined,
      })
    commit(world, () => world.ledger.proofs.set('bag', 'written'))
  },
  holds: (world) => {
    const files = firstDrive(world).files('Ribs/Shelf/film')
    if (world.ledger.proofs.size === 0 && files.size === 0) return
    expect([...files.keys()].sort()).toEqual([
      'bag-info.txt',
      'bagit.txt',
      'data/film.mp4',
      'data/note.txt',
      'manifest-sha256.txt',
      'tagmanifest-sha256.txt',
    ])
    for (const [list, lines] of [
      ['manifest-sha256.txt', 2],
      ['tagmanifest-sha256.txt', 3],
    ] as const) {
      const sums = parseChecksumList(files.get(list)?.toString() ?? '')
      expect(sums, list).toHaveLength(lines)
      for (const { hash, path: name } of sums)
        expect(
          createHash('sha256')
            .update(files.get(name) ?? '')
            .digest('hex'),
          name,
        ).toBe(hash)
    }
    expect(files.get('bagit.txt')?.length).toBeGreaterThan(0)
  },
  done: (world) => expect(firstDrive(world).files('Ribs/Shelf/film').size).toBe(6),
}

async function stepsOf(story: Story): Promise<number> {
  const world = newWorld(story)
  story.prepare(world)
  await story.run(world)
  story.done(world)
  if (story.proves !== undefined) expect(world.ledger.proofs.size).toBe(story.proves)
  return world.power.steps
}

async function cutAt(story: Story, step: number, aftermath: Aftermath, killed: boolean): Promise<void> {
  const world = newWorld(story)
  story.prepare(world)
  world.power.goesAt = step
  await story.run(world).catch(() => undefined)
  world.power.goesAt = Infinity
  // A killed worker leaves everything to the system; the power goes later, when the next run has ended.
  if (!killed) {
    for (const drive of world.drives) drive.cut(aftermath)
    story.holds(world)
  }
  await story.run(world)
  story.done(world)
  for (const drive of world.drives) drive.cut(aftermath)
  story.holds(world)
  story.done(world)
}

const STORIES = {
  copying,
  copyingLarge,
  foundThere,
  foundLarge,
  checking,
  checkingLarge,
  checkingMany,
  repairing: repairingOf(1_100_000),
  repairingSmall: repairingOf(5000),
  publishing,
  adopting,
  publishingOver,
  settingAside,
  bagging,
}

/** What is left when the power goes, in this moment or after the worker was killed and the next run has ended. */
const ENDS = (['only what was waited for', 'names without data'] as const).flatMap((aftermath) =>
  [false, true].map((killed) => ({ aftermath, killed })),
)
const FEW_STEPS = 30

describe('when the power goes', () => {
  for (const [name, story] of Object.entries(STORIES)) {
    it(`at any step of ${name}: nothing is called proved that is not there and equal, and the next run ends as an undisturbed one`, async () => {
      const steps = await stepsOf(story)
      expect(steps).toBeGreaterThan(4)
      const turn = Math.floor(Math.random() * ENDS.length)
      for (let step = 0; step <= steps; step += 1)
        for (const [at, { aftermath, killed }] of ENDS.entries())
          // At each step one way of ending, another one at the next; all of them where there are few steps, or time.
          if (isLong || steps < FEW_STEPS || (step + turn) % ENDS.length === at)
            await cutAt(story, step, aftermath, killed).catch((error: unknown) => {
              const words = error instanceof Error ? error.message : String(error)
              throw new Error(`step ${step} of ${steps}, ${killed ? 'killed first, ' : ''}${aftermath}: ${words}`)
            })
    })
  }
})
