import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { basename, dirname, join } from 'node:path'
import { expect, it } from 'vitest'

const ROOMS = ['core', 'contract', 'server', 'web', 'scripts', 'tests', 'docs']
const MAPS = ['docs/architecture.md', ...ROOMS.map((room) => `${room}/README.md`).filter((path) => existsSync(path))]

const files = ROOMS.flatMap((room) =>
  readdirSync(room, { recursive: true, encoding: 'utf8' }).map((path) => join(room, path)),
)
const names = new Set(files.map((path) => basename(path)))

/** Files and folders that a map names: `core/line/needs.ts`, `server/db/`, `copyPasses.ts`. */
const named = (text: string) =>
  [...text.matchAll(/`([\w./-]+(?:\.(?:tsx?|mjs|sql|md|sha256)|\/))`/g)].map(([, path]) => path ?? '')
const linked = (text: string) => [...text.matchAll(/\]\(([^)#:]+)\)/g)].map(([, path]) => path ?? '')

/** As a reader finds it: from the top of the house, from the room whose map it is, or by its name alone. */
const isThere = (map: string, path: string) =>
  existsSync(path) || existsSync(join(dirname(map), path)) || (!path.includes('/') && names.has(path))

it.each(MAPS)('%s names nothing that is not there', (map) => {
  const text = readFileSync(map, 'utf8')
  const paths = named(text)
  expect(paths.length).toBeGreaterThan(4)
  expect(paths.filter((path) => !isThere(map, path))).toEqual([])
  expect(linked(text).filter((path) => !existsSync(join(dirname(map), path)))).toEqual([])
})

it('the map of the house leaves out no room of the server, and each room has one', () => {
  const text = readFileSync('docs/architecture.md', 'utf8')
  const rooms = readdirSync('server', { withFileTypes: true }).filter((entry) => entry.isDirectory())
  expect(rooms.filter(({ name }) => !text.includes(`\`server/${name}/\``)).map(({ name }) => name)).toEqual([])
  for (const room of ['core', 'contract', 'server', 'web', 'tests']) expect(MAPS).toContain(`${room}/README.md`)
})
