import { readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { constants, gzipSync } from 'node:zlib'
import type { Plugin } from 'vite'

/** Where one works: each has one chunk. */
const PLACES = [/\/web\/stations\/(\w+)\//, /\/web\/(locker)\//, /\/web\/app\/pages\/(Bench)\./]

const ALL_PARTS = /\/node_modules\/(radix-ui|lucide-react|date-fns)\/(dist|index)/

const placeOf = (id: string) =>
  PLACES.map((place) => place.exec(id)?.[1]).find((name) => name !== undefined) ?? 'shared'

interface Imports {
  readonly importedIds: readonly string[]
  readonly dynamicallyImportedIds: readonly string[]
  readonly isEntry: boolean
}

/** The modules that come with `roots`; those that are fetched later are left out. */
function comesWith(roots: readonly string[], modules: ReadonlyMap<string, Imports>): ReadonlySet<string> {
  const found = new Set<string>()
  const open = [...roots]
  for (let id = open.pop(); id !== undefined; id = open.pop()) {
    if (found.has(id)) continue
    found.add(id)
    // A list of all parts of a package names also those that nobody wants; the bundler takes along what is used.
    if (ALL_PARTS.test(id)) continue
    open.push(...(modules.get(id)?.importedIds ?? []))
  }
  return found
}

/** Which chunk each module goes to, by the name of the chunk. */
function sort(modules: ReadonlyMap<string, Imports>): ReadonlyMap<string, string> {
  const first = comesWith(
    [...modules].flatMap(([id, { isEntry }]) => (isEntry ? [id] : [])),
    modules,
  )
  const later = new Set([...modules.values()].flatMap((one) => [...one.dynamicallyImportedIds]))
  const names = new Map<string, string>()
  for (const root of later) {
    const place = placeOf(root)
    for (const id of comesWith([root], modules)) names.set(id, (names.get(id) ?? place) === place ? place : 'shared')
  }
  for (const id of first) names.set(id, 'first')
  return names
}

/**
 * Chunks by place of work: what the first page needs is one, what a single station needs is that station's, and what
 * several share is one more. A page asks for three of them, however many modules there are.
 */
export function chunksByPlace() {
  let names: ReadonlyMap<string, string> = new Map()
  const group = (priority: number, belongs: (name: string) => boolean) => ({
    debugName: `places, ${priority}`,
    priority,
    name: (id: string) => {
      const name = names.get(id)
      return name !== undefined && belongs(name) ? name : undefined
    },
  })
  const plugin: Plugin = {
    name: 'chunks-by-place',
    buildEnd() {
      const modules = new Map<string, Imports>()
      for (const id of this.getModuleIds()) {
        const info = this.getModuleInfo(id)
        if (info) modules.set(id, info)
      }
      names = sort(modules)
    },
    // Every page but the first needs it, and it comes while the first is read.
    transformIndexHtml: (_html, { bundle }) =>
      Object.values(bundle ?? {}).flatMap((one) =>
        one.type === 'chunk' && one.name === 'shared'
          ? [{ tag: 'link', attrs: { rel: 'modulepreload', crossorigin: true, href: `/${one.fileName}` } }]
          : [],
      ),
  }
  /** Packed once here instead of for each answer. */
  const packed: Plugin = {
    name: 'packed',
    writeBundle({ dir }, bundle) {
      for (const { fileName } of Object.values(bundle)) {
        if (dir === undefined || !/\.(js|css)$/.test(fileName)) continue
        const file = join(dir, fileName)
        writeFileSync(`${file}.gz`, gzipSync(readFileSync(file), { level: constants.Z_BEST_COMPRESSION }))
      }
    },
  }
  // A group takes along what its modules import, if no group before it has: the widest goes first.
  const groups = [group(3, (name) => name === 'first'), group(2, (name) => name === 'shared'), group(1, () => true)]
  return { plugins: [plugin, packed], groups }
}
