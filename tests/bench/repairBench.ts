import { mkdirSync, readFileSync, rmSync } from 'node:fs'
import { join } from 'node:path'
import type { CopyRecord } from '../../core/copies/record'
import { putAside } from '../../server/engine/copy/aside'
import { copyTree } from '../../server/engine/copy/copy'
import { RunningHash } from '../../server/engine/copy/hash'
import { FolderMedium } from '../../server/engine/medium/folder'
import { chill, fillFile, type Figure } from './copyBench'

const TIMES = 5
const NAME = Buffer.from('CURL0041.MP4')

/** A file of 1 GiB that is mended from a good copy, against copying it from there where nothing lies in the way. */
export async function repairFigures(scratch: string): Promise<Figure[]> {
  const good = join(scratch, 'good')
  mkdirSync(good)
  fillFile(join(good, NAME.toString()), 1024 ** 3, 7)
  const hash = new RunningHash()
  hash.update(readFileSync(join(good, NAME.toString())))
  const sum = hash.digest()
  const [copying, mending]: [number[], number[]] = [[], []]
  for (let turn = 0; turn < TIMES; turn += 1) {
    const ways = [
      [copying, false],
      [mending, true],
    ] as const
    // Whoever comes second may find the drive busy with what the first one left.
    for (const [times, isBad] of turn % 2 === 0 ? ways : ways.toReversed()) {
      const target = join(scratch, 'target')
      mkdirSync(join(target, 'copy'), { recursive: true })
      if (isBad) fillFile(join(target, 'copy', NAME.toString()), 1024 ** 3, 8)
      chill(good, target)
      times.push(await run(good, target, sum, isBad))
      rmSync(target, { recursive: true })
    }
  }
  rmSync(good, { recursive: true })
  const median = (values: number[]) => [...values].sort((x, y) => x - y)[2] ?? 0
  const [ours, theirs] = [median(mending), median(copying)]
  return [
    {
      ...{ name: 'repairing a file of 1 GiB from another copy, against copying it', ours, theirs, unit: 's' },
      ...{ ratio: ours / theirs, goal: 'at most 1.1' },
    },
  ]
}

async function run(good: string, target: string, knownHash: string, isBad: boolean): Promise<number> {
  const [source, medium] = [new FolderMedium(good), new FolderMedium(target)]
  const entry = await source.entry(NAME)
  const records: CopyRecord[] = []
  const folder = Buffer.from('copy')
  const begun = performance.now()
  await copyTree({
    ...{ source, sourceId: 'good', folders: [], gate: () => Promise.resolve(), onBytes: () => undefined },
    files: [
      {
        ...{ id: 1, path: NAME, sizeBytes: entry?.sizeBytes ?? 0, modifiedMs: entry?.modifiedMs ?? 0 },
        ...{ wantedBy: new Set(['bad']), knownHash },
      },
    ],
    destinations: [
      {
        ...{ id: 'bad', medium, folder, parts: Buffer.from('.parts') },
        ...(isBad && {
          makeWay: async (file: { path: Buffer }) => void (await putAside(medium, folder, file.path, 'Set aside')),
        }),
      },
    ],
    report: (found) => Promise.resolve(void records.push(...found)),
  })
  if (records.filter((record) => record.kind === 'proved').length !== 2) throw new Error('it was not proved twice')
  return (performance.now() - begun) / 1000
}
