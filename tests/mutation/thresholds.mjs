import { spawnSync } from 'node:child_process'
import { cpSync, mkdirSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { dirname, join } from 'node:path'
import { fileURLToPath } from 'node:url'

/**
 * Makes each number of core that has a name a little smaller and a little larger, one at a time and in a copy of core,
 * and runs the tests that its file is used in. `node tests/mutation/thresholds.mjs core/copies`; fails where a change
 * stays green.
 */
const PROJECT = join(dirname(fileURLToPath(import.meta.url)), '../..')
const place = join(PROJECT, '.yendra-mutation/thresholds')
const asked = process.argv[2] ?? 'core'
const NAMED = /^(?:export )?const ([A-Z][A-Z_0-9]+)(?:: number)? = ([-0-9_.e* /]+)$/

/** No thresholds: a little more or less is no other answer of core, or the number is a unit or a name. */
const NO_THRESHOLD = new Set(
  [
    // How long something is searched for, how much is read at most or at once.
    ...['MOST_CHOICES MOST_WEIGHED MOST_ROOMS MOST_CELLS MOST_BOXES MOST_ATTRIBUTES MOST_TRIES MOST_STARTS WINDOW'],
    ...['MOST_INDEX_BYTES MOST_EDITS MOST_ENTRIES MOST_VALUES SAMPLED LOOKED_AT'],
    // Units, and what others are built by.
    ...['DAY DAY_MS HOUR_MS MICROSECONDS FACTS_VERSION GRID COMPARED_HZ'],
    // Told to other rooms, which test it: pictures of a strip, fields of a form, what is scanned.
    ...['STRIP_FRAMES MOST_COMPARED MOST_PASSES PROXY_HZ'],
    // Between a half and one it is all the same.
    ...['GAP'],
  ].flatMap((line) => line.split(' ')),
)

rmSync(place, { recursive: true, force: true })
mkdirSync(place, { recursive: true })
cpSync(join(PROJECT, 'core'), join(place, 'core'), { recursive: true })

const near = (value) => {
  const step = Number.isInteger(value) && Math.abs(value) < 50 ? 1 : value / 20
  return [value - step, value + step]
}
const staysGreen = (file) => {
  const args = ['related', '--run', '--root', place, '--bail=1', '--passWithNoTests', '--reporter=dot', file]
  return spawnSync(join(PROJECT, 'node_modules/.bin/vitest'), args, { cwd: place }).status === 0
}

let [tried, alive] = [0, 0]
const files = readdirSync(join(place, asked), { recursive: true, encoding: 'utf8' })
for (const name of files.filter((one) => /\.ts$/.test(one) && !/\.test\.ts$|(^|\/)test[A-Z]/.test(one)).sort()) {
  const file = join(place, asked, name)
  const text = readFileSync(file, 'utf8')
  for (const line of text.split('\n')) {
    const [, constant, number] = NAMED.exec(line) ?? []
    if (constant === undefined || NO_THRESHOLD.has(constant)) continue
    for (const value of near(Number(new Function(`return ${number}`)()))) {
      writeFileSync(file, text.replace(line, line.replace(/= .*$/, `= ${value}`)))
      tried += 1
      if (!staysGreen(file)) continue
      alive += 1
      console.log(`${asked}/${name}: ${constant} may be ${value} instead of ${number.trim()}`)
    }
    writeFileSync(file, text)
  }
}
rmSync(place, { recursive: true, force: true })
console.log(`${tried - alive} of ${tried} changed numbers were noticed in ${asked}.`)
process.exit(alive > 0 ? 1 : 0)
