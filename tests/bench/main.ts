import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { appFigures } from './appBench'
import { chartFigures } from './chartBench'
import { browserFigures } from './browserBench'
import { checkFigures, fromDriveFigures, largeFigures, scanFigure, smallFigures, type Figure } from './copyBench'
import { firstFigures } from './firstBench'
import { growthFigures } from './growthBench'
import { listFigures } from './listBench'
import { repairFigures } from './repairBench'
import { reviewFigures } from './reviewBench'

interface ManifestEntry {
  readonly file: string
  readonly isEntry?: boolean
  readonly imports?: readonly string[]
}

/** JavaScript that the first screen waits for: the entry and everything it imports at once, gzipped. */
function firstScreen(): Figure {
  const manifest = JSON.parse(readFileSync('dist/web/.vite/manifest.json', 'utf8')) as Record<string, ManifestEntry>
  const wanted = new Set<string>()
  const visit = (name: string) => {
    if (wanted.has(name)) return
    wanted.add(name)
    manifest[name]?.imports?.forEach(visit)
  }
  Object.keys(manifest)
    .filter((name) => manifest[name]?.isEntry)
    .forEach(visit)
  const bytes = [...wanted].reduce(
    (sum, name) => sum + gzipSync(readFileSync(join('dist/web', manifest[name]?.file ?? ''))).length,
    0,
  )
  return {
    name: 'JavaScript of the first screen, gzipped, against 200 kB',
    ours: bytes / 1000,
    theirs: 200,
    unit: 'kB',
    ratio: bytes / 200_000,
    goal: 'under 1',
  }
}

/** What is measured, by the word that asks for it alone: `npm run bench -- growth`. */
const PARTS: Record<string, (scratch: string) => Promise<Figure[]>> = {
  screen: () => Promise.resolve([firstScreen()]),
  listing: async (scratch) => [await scanFigure(scratch)],
  copying: largeFigures,
  small: smallFigures,
  drives: fromDriveFigures,
  checking: checkFigures,
  repair: repairFigures,
  lists: listFigures,
  application: appFigures,
  review: reviewFigures,
  growth: growthFigures,
  chart: chartFigures,
  browser: browserFigures,
  first: firstFigures,
}
const wanted = process.argv.slice(2)
const scratch = mkdtempSync(join(process.cwd(), '.yendra-bench-'))
process.env.YENDRA_TEST_DIR ??= tmpdir()
const figures: Figure[] = []
try {
  for (const [name, measure] of Object.entries(PARTS))
    if (wanted.length === 0 || wanted.includes(name)) figures.push(...(await measure(scratch)))
} finally {
  rmSync(scratch, { recursive: true, force: true })
}
const digits = (unit: Figure['unit']) => ({ s: 2, ms: 1, MB: 0, kB: 0 })[unit]
for (const { name, ours, theirs, unit, ratio, goal } of figures) {
  console.log(
    `${ratio.toFixed(2)}×  ${name}: ${ours.toFixed(digits(unit))} ${unit} against ${theirs.toFixed(digits(unit))} ${unit} (goal: ${goal})`,
  )
}
writeFileSync('dist/bench.json', `${JSON.stringify(figures, null, 2)}\n`)
console.log(JSON.stringify(figures))
