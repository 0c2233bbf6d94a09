import { execFileSync } from 'node:child_process'
import { mkdirSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { Findings } from '../../server/engine/lists/findings'
import { readList } from '../../server/engine/lists/readList'
import { verifyFolder } from '../../server/engine/lists/verify'
import { FolderMedium } from '../../server/engine/medium/folder'
import { chill, fillFile, type Figure } from './copyBench'

const TIMES = 3
const GIB = 1024 ** 3

/** A folder of 4 GiB that is compared with its list, against `sha256sum -c`, in turns. */
export async function listFigures(scratch: string): Promise<Figure[]> {
  const folder = join(scratch, 'listed')
  mkdirSync(folder)
  for (const at of [0, 1, 2, 3]) fillFile(join(folder, `CURL004${at}.MP4`), GIB, at + 1)
  writeFileSync(join(scratch, 'listed.sha256'), execFileSync('sh', ['-c', 'sha256sum *'], { cwd: folder }))
  const [ours, theirs]: [number[], number[]] = [[], []]
  for (let turn = 0; turn < TIMES; turn += 1) {
    const ways = [
      [
        theirs,
        () => Promise.resolve(void execFileSync('sha256sum', ['--quiet', '-c', '../listed.sha256'], { cwd: folder })),
      ],
      [ours, () => compared(scratch, folder)],
    ] as const
    for (const [times, run] of turn % 2 === 0 ? ways : ways.toReversed()) {
      chill(folder, folder)
      const begun = performance.now()
      await run()
      times.push((performance.now() - begun) / 1000)
    }
  }
  rmSync(folder, { recursive: true })
  const median = (values: number[]) => [...values].sort((x, y) => x - y)[1] ?? 0
  const [mine, others] = [median(ours), median(theirs)]
  return [
    {
      ...{ name: 'comparing 4 GiB with a SHA-256 list, against sha256sum -c', ours: mine, theirs: others, unit: 's' },
      ...{ ratio: mine / others, goal: 'at most 1.1' },
    },
  ]
}

async function compared(scratch: string, folder: string): Promise<void> {
  const gate = () => Promise.resolve()
  const { lines } = await readList(new FolderMedium(scratch), Buffer.from('listed.sha256'), gate)
  const { equal } = await verifyFolder(
    {
      ...{ medium: new FolderMedium(folder), folder: Buffer.alloc(0), folderPath: folder, listFolder: scratch, lines },
      ...{ isOwn: () => false, gate, onTotal: () => undefined, onBytes: () => undefined },
    },
    new Findings(),
  )
  if (equal !== 4) throw new Error('it was not equal')
}
