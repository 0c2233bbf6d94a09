import { counted, formatBytes } from '../../units/quantity'
import { endingOf } from '../../units/filePath'
import { findingKeyOf, SHOWN_PATHS, type Finding } from '../findings/findings'
import type { ListedFile } from '../load/load'

/** Smaller files are lists and settings that every camera writes. Common practice, no source. */
export const LEAST_UNKNOWN_BYTES = 1024 * 1024

const SHOWN_ENDINGS = 4

const bytesOf = (files: readonly ListedFile[]) => files.reduce((sum, file) => sum + file.sizeBytes, 0)

/**
 * What is said of large files that belong to no clip, as of a camera whose raw films nothing here can open: a question
 * where the card has no clip beside them. Of `files` only those of at least `LEAST_UNKNOWN_BYTES` count.
 */
export function unknownKindFinding(files: readonly ListedFile[], clips: number): Finding[] {
  const loose = files.filter((file) => file.sizeBytes >= LEAST_UNKNOWN_BYTES)
  if (loose.length === 0) return []
  const paths = loose.map((file) => file.path).sort()
  const endings = [...new Set(paths.map((path) => endingOf(path)))]
  const shown = endings.slice(0, SHOWN_ENDINGS).map((ending) => (ending === '' ? 'without an ending' : `.${ending}`))
  const words =
    `${counted(loose.length, 'file')} of a kind that cannot be opened here ` +
    `(${shown.join(', ')}${endings.length > SHOWN_ENDINGS ? ' …' : ''}, ` +
    `${formatBytes(bytesOf(loose))})`
  const they = loose.length === 1 ? 'It is' : 'They are'
  const copied =
    `${they} copied and proved like all others; look at ${loose.length === 1 ? 'it' : 'them'} in ` + 'your own program.'
  return [
    {
      kind: 'unknown-kind',
      weight: clips === 0 ? 'ask' : 'note',
      sentence:
        clips === 0
          ? `No clip, but ${words}. Is that what the camera should have written? ${copied}`
          : `${words}. ${copied}`,
      paths: paths.slice(0, SHOWN_PATHS),
      files: loose.length,
      key: findingKeyOf('unknown-kind', paths),
    },
  ]
}
