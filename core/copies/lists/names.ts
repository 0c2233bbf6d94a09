/**
 * Where the names of a list lie, seen from the folder that is compared with it. Names are bytes, one a character, with
 * `/` between their parts.
 */
export interface Base {
  /** Parts at the beginning of a name that lead down to the folder: the list was made in a folder above. */
  readonly above: readonly string[]
  /** Parts that are put before each name: the list was made in a folder inside. */
  readonly inside: readonly string[]
  /** Names are written with `\` between their parts. */
  readonly backslashes: boolean
}

export type Placed =
  | { readonly kind: 'here'; readonly path: string }
  /** In a folder that lies beside the one that is compared. */
  | { readonly kind: 'elsewhere' }
  | { readonly kind: 'refused' }

/** Also on the other kind of computer, where a letter and a colon come first. */
const isAbsolute = (name: string) => /^[/]|^[A-Za-z]:[\\/]|^\\\\/.test(name)

/** A name is refused when it is absolute, leads out of the folder, or is none. */
export function placed(name: string, { above, inside, backslashes }: Base): Placed {
  if (isAbsolute(name) || (backslashes && name.startsWith('\\')) || name.includes('\0')) return { kind: 'refused' }
  const parts: string[] = [...inside]
  for (const part of (backslashes ? name.replaceAll('\\', '/') : name).split('/')) {
    if (part === '' || part === '.') continue
    if (part !== '..') parts.push(part)
    else if (parts.pop() === undefined) return { kind: 'refused' }
  }
  if (!above.every((part, at) => parts[at] === part)) return { kind: 'elsewhere' }
  const path = parts.slice(above.length).join('/')
  return path === '' ? { kind: 'refused' } : { kind: 'here', path }
}

/** Names are looked up by so many of them. */
const LOOKED_UP = 2000

/** Folders above that a list may have been made in. */
const MOST_ABOVE = 12

export interface BaseQuestion {
  readonly names: readonly string[]
  /** Absolute path of the folder that is compared. */
  readonly folder: string
  /** Absolute path of the folder in which the list lies. */
  readonly listFolder: string
  readonly exists: (path: string) => boolean
}

/** The base under which most names are found; the nearest to the list where several are alike. */
export function baseOf({ names, folder, listFolder, exists }: BaseQuestion): Base {
  const step = Math.max(1, Math.floor(names.length / LOOKED_UP))
  const some = names.filter((_, at) => at % step === 0)
  let best: { readonly base: Base; readonly found: number } | undefined
  for (const base of bases(some, partsOf(folder), partsOf(listFolder))) {
    const found = some.filter((name) => {
      const at = placed(name, base)
      return at.kind === 'here' && exists(at.path)
    }).length
    if (!best || found > best.found) best = { base, found }
  }
  return best?.base ?? { above: [], inside: [], backslashes: false }
}

const partsOf = (path: string) => path.split('/').filter((part) => part !== '')

function bases(names: readonly string[], folder: readonly string[], listFolder: readonly string[]): Base[] {
  const within = folder.every((part, at) => listFolder[at] === part) ? listFolder.slice(folder.length) : []
  const spellings = names.some((name) => name.includes('\\')) ? [false, true] : [false]
  return spellings.flatMap((backslashes) => {
    const common = commonParts(names, backslashes)
    return [
      // Where the list lies, and the folders between it and the one that is compared, which is the last of them.
      ...within.map((_, at) => ({ above: [], inside: within.slice(0, within.length - at) })),
      { above: [], inside: [] },
      ...lengths(folder.length).map((length) => ({ above: folder.slice(-length), inside: [] })),
      // A folder above that has another name here.
      ...lengths(common.length).map((length) => ({ above: common.slice(0, length), inside: [] })),
    ].map((base) => ({ ...base, backslashes }))
  })
}

const lengths = (most: number) => Array.from({ length: Math.min(most, MOST_ABOVE) }, (_, at) => at + 1)

/** Folders with which every name begins. */
function commonParts(names: readonly string[], backslashes: boolean): readonly string[] {
  let common: readonly string[] | undefined
  for (const name of names) {
    const parts = partsOf(backslashes ? name.replaceAll('\\', '/') : name)
      .filter((part) => part !== '.')
      .slice(0, -1)
    const before: readonly string[] = common ?? parts
    const end = before.findIndex((part, at) => parts[at] !== part)
    common = end < 0 ? before : before.slice(0, end)
  }
  return common ?? []
}
