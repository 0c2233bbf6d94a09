import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { gzipSync } from 'node:zlib'
import { copyFigures, scanFigure, type Figure } from './copyBench'

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

const scratch = mkdtempSync(join(process.cwd(), '.yendra-bench-'))
const figures: Figure[] = []
try {
  figures.push(firstScreen(), await scanFigure(scratch), ...(await copyFigures(scratch)))
} finally {
  rmSync(scratch, { recursive: true, force: true })
}
for (const { name, ours, theirs, unit, ratio, goal } of figures) {
  console.log(
    `${ratio.toFixed(2)}×  ${name}: ${ours.toFixed(unit === 's' ? 2 : 0)} ${unit} against ${theirs.toFixed(unit === 's' ? 2 : 0)} ${unit} (goal: ${goal})`,
  )
}
writeFileSync('dist/bench.json', `${JSON.stringify(figures, null, 2)}\n`)
console.log(JSON.stringify(figures))
