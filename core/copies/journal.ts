import { counted, formatBytes } from '../units/quantity'

/** Something that was done to a load, seen of it or said of it, as the rows tell. */
export type JournalRow =
  | { readonly kind: 'task'; readonly title: string; readonly sentence: string | null }
  | {
      readonly kind: 'seen'
      /** The volume on which its copy was listed; the card where there is none. */
      readonly volumeName: string | null
      readonly files: number
      readonly sizeBytes: number
    }
  | {
      readonly kind: 'said'
      readonly said: string
      readonly volumeName: string | null
      readonly path: string | null
      /** The answer that it was said against. */
      readonly against: string | null
      readonly note: string | null
    }
  | { readonly kind: 'note'; readonly note: string; readonly volumeName: string | null }

const name = (path: string | null) => (path === null ? 'a clip' : `“${path.split('/').at(-1) ?? path}”`)
const said = (words: string | null) => (words ? `: ${words}` : '')

/** One line of the journal of a load, in the past. */
export function journalSentence(row: JournalRow): string {
  switch (row.kind) {
    case 'task':
      return `${row.title}. ${row.sentence ?? 'It did not finish.'}`
    case 'seen':
      return (
        `${row.volumeName === null ? 'The card was scanned' : `The copy on ${row.volumeName} was listed`}: ` +
        `${counted(row.files, 'file')}, ${formatBytes(row.sizeBytes)}.`
      )
    case 'note':
      return `${NOTES[row.note] ?? row.note}${row.volumeName ? ` on ${row.volumeName}` : ''}.`
    case 'said':
      return saidSentence(row)
  }
}

const NOTES: Readonly<Record<string, string>> = {
  'set-aside': 'Files were set aside',
  repaired: 'Files were mended from another copy',
  rescued: 'Files were brought back from what could still be read',
}

function saidSentence({ said: kind, volumeName, path, against, note }: JournalRow & { kind: 'said' }): string {
  const on = volumeName ? ` from ${volumeName}` : ''
  switch (kind) {
    case 'spot-played':
      return `You played ${name(path)}${on}.`
    case 'found-wrong':
      return `You found something wrong with ${name(path)}${on}${said(note)}.`
    case 'found-whole':
      return `You said that nothing is wrong with ${name(path)}${on} after all.`
    case 'formatted':
      return against
        ? `You said that the card was formatted, against the answer (${against})${said(note)}.`
        : 'You said that the card was formatted.'
    case 'unformatted':
      return 'You took back that the card was formatted.'
    default:
      return `You answered a question of the card${said(note)}.`
  }
}
