import { cardChanges } from '../../core/cards/load'
import { counted } from '../../core/units/quantity'
import * as cards from '../db/queries/cards'
import type { Medium } from '../engine/medium'
import { walk } from '../engine/walk'
import { readerContent } from '../places'
import { CannotWork, type Work } from './work'

export type Entry = Awaited<ReturnType<typeof cards.entriesOf>>[number]

/** The card of a load, in its reader, just as it was when it was looked at. */
export async function cardOf(
  { db }: Work,
  load: { readerId: string | null; label: string },
  files: readonly Entry[],
): Promise<Medium> {
  const reader = load.readerId ? await cards.reader(db, load.readerId) : undefined
  const content = reader ? await readerContent(db, reader) : 'unreachable'
  if (content === 'empty' || content === 'unreachable')
    throw new CannotWork(`The card of “${load.label}” is not in the reader. Put it in and copy again.`)
  const listed = (await walk(content.medium)).filter((entry) => entry.kind === 'file')
  const byBytes = (file: { path: Buffer; sizeBytes: number; modifiedMs: number }) => ({
    ...file,
    path: file.path.toString('latin1'),
  })
  const { stayed, gone, changed, added } = cardChanges(files.map(byBytes), listed.map(byBytes))
  if (files.length > 0 && stayed === 0)
    throw new CannotWork(
      `The card in the reader is not the one of “${load.label}”. Change cards, or look at this one first.`,
    )
  const differences = [
    [gone, 'gone'],
    [changed, 'changed'],
    [added, 'new'],
  ] as const
  const words = differences.flatMap(([count, word]) => (count > 0 ? [`${counted(count, 'file')} ${word}`] : []))
  if (words.length > 0)
    throw new CannotWork(
      `The card has changed since it was looked at: ${words.join(', ')}. Look at it again, then copy; nothing was written.`,
    )
  return content.medium
}
