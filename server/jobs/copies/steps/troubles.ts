import type { CopyRecord, DestinationFailed } from '../../../../core/copies/record'
import { formatBytes } from '../../../../core/units/quantity'

/** What a person must know of one thing that went wrong; `undefined` when nothing did. */
export function troubleSentence(
  record: CopyRecord,
  names: ReadonlyMap<number, string>,
  targets: readonly { readonly id: string; readonly name: string }[],
): string | undefined {
  if (record.kind === 'proved') return undefined
  if (record.kind === 'source-failed')
    return `${names.get(record.fileId)} could not be read from the card: ${record.message}`
  const volume = targets.find((to) => to.id === record.destinationId)?.name ?? 'A volume'
  switch (record.kind) {
    case 'mismatch':
      return (
        `${names.get(record.fileId)} on ${volume} differed when it was read back (${record.found} ` +
        `instead of ${record.wanted}). It was not kept there; copy again, and distrust ${volume} if it ` +
        'happens twice.'
      )
    case 'conflict':
      return (
        `${names.get(record.fileId)} on ${volume} is another file (${record.found} instead of ` +
        `${record.wanted}). It was left as it is: set it aside and copy again.`
      )
    case 'refused':
      if (record.inTheWay !== undefined)
        return `${volume}: ${record.inTheWay} Move it away, then do this again; what is proved there stays.`
      return (
        `${names.get(record.fileId)} cannot lie on ${volume}: its name does not fit there. Copy it by ` +
        'hand under a shorter name, and keep the card.'
      )
    case 'destination-failed':
      return failedSentence(record, volume)
  }
}

function failedSentence({ reason, missingBytes, message }: DestinationFailed, volume: string): string {
  switch (reason) {
    case 'full':
      return missingBytes === 0
        ? `${volume} takes no more bytes, though it still shows room: a quota, or a pool that it shares ` +
            'with others, is full. Make room there and copy again; what is proved on it stays.'
        : `${volume} is full: ${formatBytes(missingBytes)} (${missingBytes} bytes) are ` +
            'missing. Make room and copy again; what is proved there stays.'
    case 'gone':
      return `${volume} was unplugged. Connect it and copy again; what is proved there stays.`
    case 'read-only':
      return (
        `${volume} can only be read here: a switch on it, its file system or the way it is mounted forbids writing. ` +
        'Make it writable, then do this again; what is proved there stays.'
      )
    case 'refused':
      return `${volume} refused: ${message.replace(/\.$/, '')}. What is proved there stays.`
  }
}
