/** One planned shot, by the name that its clip will have. */
export interface Shot {
  readonly id: string
  readonly name: string
  readonly cameraId: string | null
  /** Destinations that it is for. */
  readonly deliverables: readonly string[]
  readonly notes: string
  /** ISO 8601; `null` until it is ticked off. */
  readonly filmedAt: string | null
}

/** A shot as it is made, before the list knows it. */
export type NewShot = Omit<Shot, 'id'>

export const MOST_PASSES = 20

/** One performance filmed so many times from other places: `passes(shot, 5)` is “Verse, pass 1 of 5” to “… 5 of 5”. */
export const passes = (shot: NewShot, count: number): NewShot[] =>
  count <= 1
    ? [shot]
    : Array.from({ length: count }, (_, at) => ({ ...shot, name: `${shot.name}, pass ${at + 1} of ${count}` }))

/** What the day still asks for, in one sentence. */
export function shotsSentence(shots: readonly Pick<Shot, 'name' | 'filmedAt'>[]): string {
  const open = shots.filter((shot) => shot.filmedAt === null)
  const [next] = open
  if (shots.length === 0) return 'Write down what must be filmed.'
  if (!next) return shots.length === 1 ? 'The one shot is filmed.' : `All ${shots.length} shots are filmed.`
  return open.length === shots.length
    ? `${shots.length === 1 ? '1 shot' : `${shots.length} shots`} to film, first “${next.name}”.`
    : `${shots.length - open.length} of ${shots.length} filmed; next “${next.name}”.`
}

/** What names in a table stand for. */
export interface ShotNames {
  readonly cameras: readonly { readonly id: string; readonly name: string }[]
  readonly destinations: readonly { readonly id: string; readonly name: string }[]
}

const HEAD = ['Shot', 'Camera', 'For', 'Notes', 'Filmed'] as const

/** Shots as the rows of a table, the head first. */
export function shotRows(shots: readonly NewShot[], { cameras, destinations }: ShotNames): string[][] {
  const named = (all: ShotNames['cameras'], id: string) => all.find((one) => one.id === id)?.name ?? ''
  return [
    [...HEAD],
    ...shots.map((shot) => [
      shot.name,
      shot.cameraId ? named(cameras, shot.cameraId) : '',
      shot.deliverables
        .map((id) => named(destinations, id))
        .filter(Boolean)
        .join('; '),
      shot.notes,
      shot.filmedAt ?? '',
    ]),
  ]
}

/** ISO 8601 in UTC, as the table is written. */
const MOMENT = /^\d{4}-\d\d-\d\dT\d\d:\d\d:\d\d(\.\d{1,3})?Z$/

export interface ReadShots {
  readonly shots: readonly NewShot[]
  /** What could not be taken as it stood, by line of the table. */
  readonly faults: readonly string[]
}

const same = (a: string, b: string) => a.trim().toLowerCase() === b.trim().toLowerCase()

/** An apostrophe keeps a spreadsheet from running what follows; it is no part of the text. */
const plain = (cell: string | undefined) => (cell ?? '').trim().replace(/^'(?=[=+\-@\t\r])/, '')

/**
 * Shots from the rows of a table. The head names the columns in any order; without one the first column is the name.
 * What names no known camera or destination is said, and the shot is taken without it.
 */
export function shotsFromRows(rows: readonly (readonly string[])[], names: ShotNames): ReadShots {
  const [first = []] = rows
  const head = first.some((cell) => same(cell, 'Shot'))
  const column = (name: (typeof HEAD)[number], otherwise: number) =>
    head ? first.findIndex((cell) => same(cell, name)) : otherwise
  const at = {
    name: column('Shot', 0),
    camera: column('Camera', 1),
    for: column('For', 2),
    notes: column('Notes', 3),
    filmed: column('Filmed', 4),
  }
  const faults: string[] = []
  const shots = rows.flatMap((row, line): NewShot[] => {
    const name = plain(row[at.name])
    if ((head && line === 0) || row.every((cell) => cell.trim() === '')) return []
    if (name === '') {
      faults.push(`Line ${line + 1} names no shot and was left out.`)
      return []
    }
    const camera = plain(row[at.camera])
    const cameraId = names.cameras.find((one) => same(one.name, camera))?.id ?? null
    if (camera !== '' && cameraId === null) faults.push(`Line ${line + 1}: no camera is called “${camera}”.`)
    const wanted = plain(row[at.for])
      .split(/[;,]/)
      .map((one) => one.trim())
      .filter(Boolean)
    const deliverables = wanted.flatMap((one) => {
      const known = names.destinations.find((each) => same(each.name, one))
      if (!known) faults.push(`Line ${line + 1}: no destination is called “${one}”.`)
      return known ? [known.id] : []
    })
    const filmed = plain(row[at.filmed])
    const filmedAt = MOMENT.test(filmed) && !Number.isNaN(Date.parse(filmed)) ? filmed : null
    if (filmed !== '' && filmedAt === null)
      faults.push(`Line ${line + 1}: “${filmed}” is no time such as 2026-11-26T09:30:00Z.`)
    const kept = (text: string, most: number, what: string) => {
      if (text.length > most)
        faults.push(`Line ${line + 1}: of the ${text.length} characters of its ${what} ${most} are kept.`)
      return text.slice(0, most)
    }
    const notes = kept(plain(row[at.notes]), 500, 'notes')
    return [{ name: kept(name, 120, 'name'), cameraId, deliverables, notes, filmedAt }]
  })
  return { shots, faults }
}

/** Those shots of a table that are not on the list yet, so that the same table changes nothing when it comes again. */
export function shotsNotOn(list: readonly NewShot[], shots: readonly NewShot[]): NewShot[] {
  const textOf = ({ name, cameraId, deliverables, notes }: NewShot) =>
    JSON.stringify([name, cameraId, [...deliverables].sort(), notes])
  const left = new Map<string, number>()
  for (const shot of list) left.set(textOf(shot), (left.get(textOf(shot)) ?? 0) + 1)
  return shots.filter((shot) => {
    const there = left.get(textOf(shot)) ?? 0
    left.set(textOf(shot), there - 1)
    return there <= 0
  })
}
