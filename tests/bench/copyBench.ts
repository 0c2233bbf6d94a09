import { execFileSync } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import { mkdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { CopyRecord } from '../../core/copies/record'
import { itemAt } from '../../server/engine/medium/blocks'
import { checkCopy } from '../../server/engine/copy/check'
import { copyTree } from '../../server/engine/copy/copy'
import { FolderMedium } from '../../server/engine/medium/folder'
import { walk } from '../../server/engine/medium/walk'

/** One figure: what it is, ours, what it is measured against, their ratio, and what is aimed at. */
export interface Figure {
  readonly name: string
  readonly ours: number
  readonly theirs: number
  readonly unit: 's' | 'ms' | 'MB' | 'kB'
  readonly ratio: number
  readonly goal: string
}

const seconds = (work: () => void) => {
  const begun = performance.now()
  work()
  return (performance.now() - begun) / 1000
}

const sh = (script: string, ...args: string[]) =>
  execFileSync('sh', ['-ec', script, 'sh', ...args], { stdio: ['ignore', 'ignore', 'inherit'] })

/** Takes a tree out of the system's cache (vmtouch of Debian). */
export const chill = (...folders: string[]) => {
  sh('sync')
  execFileSync('vmtouch', ['-eq', ...folders])
}

/** Bytes that no file system or drive can shorten. */
export function fillFile(path: string, sizeBytes: number, seed: number): void {
  const block = Buffer.alloc(Math.min(4 * 1024 * 1024, Math.ceil(sizeBytes / 4) * 4))
  for (let at = 0, word = seed; at < block.length; at += 4) {
    word = (Math.imul(word, 1664525) + 1013904223) >>> 0
    block.writeUInt32LE(word, at)
  }
  writeFileSync(path, '')
  for (let done = 0; done < sizeBytes; done += block.length) {
    createHash('md5').update(String(done)).digest().copy(block, 0)
    writeFileSync(path, block.subarray(0, Math.min(block.length, sizeBytes - done)), { flag: 'a' })
  }
}

/** The way with common tools: cp twice, sync, drop the copies from the cache, xxhsum on all three. */
function withTools(source: string, a: string, b: string): number {
  return seconds(() => {
    sh(
      'cp -R --preserve=timestamps "$1" "$2"; cp -R --preserve=timestamps "$1" "$3"; sync -f "$2"; sync -f "$3"',
      source,
      a,
      b,
    )
    execFileSync('vmtouch', ['-eq', a, b])
    for (const folder of [source, a, b]) sh('find "$1" -type f -print0 | xargs -0 xxhsum -H64 -q > /dev/null', folder)
  })
}

/**
 * The disk itself, by dd with direct reads and writes: one read, two writes and two reads of the same bytes, one after
 * the other.
 */
function withDisk(file: string, a: string, b: string): number {
  const read = (path: string) => seconds(() => sh('dd if="$1" of=/dev/null bs=8M iflag=direct status=none', path))
  const write = (path: string) =>
    seconds(() => sh('dd if="$1" of="$2" bs=8M oflag=direct conv=fsync status=none', file, path))
  const first = read(file)
  // What is written comes from memory, so that the disk does nothing else.
  execFileSync('vmtouch', ['-tq', file])
  return first + write(a) + write(b) + read(a) + read(b)
}

/**
 * `known` are sums of the files by their paths, where the source is a proved copy: it is proved again while it is read.
 */
async function withYendra(
  source: string,
  a: string,
  b: string,
  known?: ReadonlyMap<string, string>,
): Promise<{ seconds: number; peakBytes: number }> {
  const card = new FolderMedium(source)
  let peakBytes = 0
  const watch = setInterval(() => (peakBytes = Math.max(peakBytes, process.memoryUsage.rss())), 20)
  const begun = performance.now()
  const entries = await walk(card)
  const files = entries
    .filter((entry) => entry.kind === 'file')
    .map((entry, id) => ({
      id,
      path: entry.path,
      sizeBytes: entry.sizeBytes,
      modifiedMs: entry.modifiedMs,
      wantedBy: new Set(['a', 'b']),
      knownHash: known?.get(entry.path.toString()),
    }))
  const records: CopyRecord[] = []
  const place = { folder: Buffer.from('copy'), parts: Buffer.from('.parts') }
  for (const folder of [a, b]) mkdirSync(folder, { recursive: true })
  await copyTree({
    source: card,
    sourceId: known && 'source',
    files,
    folders: entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path),
    destinations: [
      { id: 'a', medium: new FolderMedium(a), ...place },
      { id: 'b', medium: new FolderMedium(b), ...place },
    ],
    gate: () => Promise.resolve(),
    onBytes: () => undefined,
    report: (found) => Promise.resolve(void records.push(...found)),
  })
  const took = (performance.now() - begun) / 1000
  clearInterval(watch)
  const proved = records.filter((record) => record.kind === 'proved' && record.fromMedium)
  const wanted = files.length * (known ? 3 : 2)
  if (proved.length !== wanted) throw new Error(`Only ${proved.length} of ${wanted} were proved from the medium`)
  return { seconds: took, peakBytes }
}

/** Median of three runs of each way, turn about, cold source every time. */
async function compare(name: string, source: string, scratch: string, goal: string): Promise<Figure[]> {
  const [tools, ours, peaks]: [number[], number[], number[]] = [[], [], []]
  // Kept to the end: a file system is slow to make files where many were just removed.
  const copies: string[] = []
  for (let turn = 0; turn < 3; turn += 1) {
    const targets = ['ta', 'tb', 'ya', 'yb'].map((folder) => join(scratch, `${folder}${turn}`))
    chill(source)
    tools.push(withTools(source, itemAt(targets, 0), itemAt(targets, 1)))
    chill(source)
    const result = await withYendra(source, itemAt(targets, 2), itemAt(targets, 3))
    ours.push(result.seconds)
    peaks.push(result.peakBytes)
    copies.push(...targets)
  }
  for (const folder of copies) rmSync(folder, { recursive: true, force: true })
  const median = (values: number[]) => [...values].sort((x, y) => x - y)[1] ?? 0
  const memory = Math.max(...peaks) / 1e6
  return [
    { name, ours: median(ours), theirs: median(tools), unit: 's', ratio: median(ours) / median(tools), goal },
    {
      name: `${name}: memory of the process`,
      ours: memory,
      theirs: 300,
      unit: 'MB',
      ratio: memory / 300,
      goal: 'under 1 (300 MB)',
    },
  ]
}

/** One file of 1 GiB, against the common tools and against the disk itself. */
export async function largeFigures(scratch: string): Promise<Figure[]> {
  const large = join(scratch, 'large')
  mkdirSync(large)
  fillFile(join(large, 'CURL0041.MP4'), 1024 ** 3, 7)
  const one = await compare('copy to two volumes with proof, one file of 1 GiB', large, scratch, 'at most 0.7')
  const disk = Math.min(
    ...[0, 1, 2].map(() => {
      chill(large)
      return withDisk(join(large, 'CURL0041.MP4'), join(scratch, 'da'), join(scratch, 'db'))
    }),
  )
  for (const name of ['da', 'db']) rmSync(join(scratch, name))
  rmSync(large, { recursive: true })
  const ours = one[0]?.ours ?? 0
  return [
    ...one,
    {
      name: 'copy of that file against the disk itself (dd, direct)',
      ours,
      theirs: disk,
      unit: 's',
      ratio: ours / disk,
      goal: 'at most 1.25',
    },
    {
      name: 'the disk itself (dd, direct) against the common tools: what a copy that never waits would reach',
      ours: disk,
      theirs: one[0]?.theirs ?? 0,
      unit: 's',
      ratio: disk / (one[0]?.theirs ?? 0),
      goal: 'none; the goal of the copy can be met where this is below it',
    },
  ]
}

/** Two thousand small files, against the common tools. */
export async function smallFigures(scratch: string): Promise<Figure[]> {
  const small = join(scratch, 'small')
  mkdirSync(small)
  for (let at = 0; at < 2000; at += 1) fillFile(join(small, `F${String(at).padStart(4, '0')}.XML`), 100_000, at)
  const many = await compare('copy to two volumes with proof, 2 000 files of 100 kB', small, scratch, 'at most 0.95')
  rmSync(small, { recursive: true })
  return many
}

/**
 * 1 GiB and 2 000 small files from a proved copy, which is proved again, against the same from a card; medians of five,
 * turn about.
 */
export async function fromDriveFigures(scratch: string): Promise<Figure[]> {
  const source = join(scratch, 'proved')
  mkdirSync(source)
  fillFile(join(source, 'CURL0041.MP4'), 1024 ** 3, 7)
  for (let at = 0; at < 2000; at += 1) fillFile(join(source, `F${String(at).padStart(4, '0')}.XML`), 100_000, at)
  const list = execFileSync('sh', ['-c', 'cd "$1" && xxhsum -H64 *', 'sh', source], { encoding: 'utf8' })
  const known = new Map(
    list
      .trim()
      .split('\n')
      .map((line) => line.split('  ') as [string, string])
      .map(([hash, path]) => [path, hash]),
  )
  const [card, drive]: [number[], number[]] = [[], []]
  for (let turn = 0; turn < 5; turn += 1) {
    const ways = [
      [card, undefined],
      [drive, known],
    ] as const
    // Whoever comes second may find the drive busy with what the first one left.
    for (const [times, sums] of turn % 2 === 0 ? ways : ways.toReversed()) {
      const targets = ['fa', 'fb'].map((folder) => join(scratch, folder))
      chill(source)
      times.push((await withYendra(source, itemAt(targets, 0), itemAt(targets, 1), sums)).seconds)
      for (const target of targets) rmSync(target, { recursive: true })
    }
  }
  rmSync(source, { recursive: true })
  const median = (values: number[]) => [...values].sort((x, y) => x - y)[2] ?? 0
  const [ours, theirs] = [median(drive), median(card)]
  const name = 'copy from a proved copy to two volumes, against the same from a card'
  return [{ name, ours, theirs, unit: 's', ratio: ours / theirs, goal: 'at most 1.05' }]
}

/** Reading copies again, against xxhsum with a list of them, both cold. */
export const checkFigures = async (scratch: string): Promise<Figure[]> => [
  await checkFigure(scratch, '2 000 files', 0),
  await checkFigure(scratch, '1 GiB and 2 000 files', 1024 ** 3),
]

async function checkFigure(scratch: string, what: string, largeBytes: number): Promise<Figure> {
  const root = join(scratch, 'checked')
  mkdirSync(join(root, 'copy'), { recursive: true })
  if (largeBytes > 0) fillFile(join(root, 'copy/LARGE.MOV'), largeBytes, 1)
  for (let at = 0; at < 2000; at += 1) writeFileSync(join(root, `copy/F${at}.XML`), randomBytes(100_000))
  sh('cd "$1" && find copy -type f -print0 | xargs -0 xxhsum -H64 > copy.xxh64', root)
  const files = readFileSync(join(root, 'copy.xxh64'), 'utf8')
    .trim()
    .split('\n')
    .map((line, id) => {
      const [hash = '', path = ''] = line.split(/ {2}copy\//)
      return { id, hash, path: Buffer.from(path), sizeBytes: statSync(join(root, 'copy', path)).size }
    })
  const check = async () => {
    const begun = performance.now()
    let wrong = 0
    await checkCopy({
      destinationId: 'a',
      medium: new FolderMedium(root),
      folder: Buffer.from('copy'),
      files,
      gate: () => Promise.resolve(),
      onBytes: () => undefined,
      report: (records) => Promise.resolve(void (wrong += records.filter((one) => one.kind !== 'proved').length)),
    })
    if (wrong > 0) throw new Error(`${wrong} files were found to differ`)
    return (performance.now() - begun) / 1000
  }
  const verify = () => seconds(() => sh('cd "$1" && xxhsum --strict --quiet -c copy.xxh64', root))
  const [tools, ours]: [number[], number[]] = [[], []]
  // Our program has run for days when a night begins: its threads are started by the first of many turns.
  for (let turn = 0; turn < 9; turn += 1) {
    chill(root)
    if (turn % 2 === 0) tools.push(verify())
    else ours.push(await check())
    chill(root)
    if (turn % 2 === 0) ours.push(await check())
    else tools.push(verify())
  }
  rmSync(root, { recursive: true })
  const median = (values: number[]) => [...values].sort((x, y) => x - y)[4] ?? 0
  return {
    name: `checking ${what} again, against xxhsum -c`,
    ours: median(ours),
    theirs: median(tools),
    unit: 's',
    ratio: median(ours) / median(tools),
    goal: 'at most 1.1',
  }
}

/** Listing of 20 000 files against find of Debian's findutils, both warm. */
export async function scanFigure(scratch: string): Promise<Figure> {
  const root = join(scratch, 'tree')
  for (let folder = 0; folder < 100; folder += 1) {
    const path = join(root, String(100 + folder))
    mkdirSync(path, { recursive: true })
    for (let at = 0; at < 200; at += 1) writeFileSync(join(path, `F${at}`), '')
  }
  const theirs = Math.min(
    ...[0, 1, 2, 3, 4].map(() => seconds(() => sh('find "$1" -printf "%P %y %s %T@ %l\\0" > /dev/null', root))),
  )
  let ours = Infinity
  for (let turn = 0; turn < 5; turn += 1) {
    const begun = performance.now()
    const found = await walk(new FolderMedium(root))
    ours = Math.min(ours, (performance.now() - begun) / 1000)
    if (found.length !== 20_100) throw new Error(`${found.length} entries instead of 20 100`)
  }
  rmSync(root, { recursive: true })
  return {
    name: 'scan of 20 000 files against find -printf',
    ours,
    theirs,
    unit: 's',
    ratio: ours / theirs,
    goal: 'at most 3',
  }
}
