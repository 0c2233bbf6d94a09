import { counted } from '../../../../core/units/quantity'
import type { Db } from '../../../db/connection'
import { entryPaths } from '../../../db/queries/mirrors'
import type { MirrorScan } from '../../../observer/mirrorScan'

const SHOWN = 3

/** What lies in a mirror and never was on its card, in a sentence. */
export async function strangersIn(db: Db, loadId: string, name: string, files: MirrorScan['files']): Promise<string[]> {
  const known = new Set((await entryPaths(db, loadId)).map(({ path }) => path.toString('latin1')))
  const others = [...files.keys()].filter((path) => !known.has(path)).sort()
  if (others.length === 0) return []
  const names = others.slice(0, SHOWN).map((path) => Buffer.from(path, 'latin1').toString())
  const more = others.length > SHOWN ? ` and ${others.length - SHOWN} more` : ''
  return [
    `${counted(others.length, 'file')} in the copy on ${name} never ${others.length === 1 ? 'was' : 'were'} on the card: ` +
      `${names.join(', ')}${more}. Nothing was done to ${others.length === 1 ? 'it' : 'them'}.`,
  ]
}
