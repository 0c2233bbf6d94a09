import { companionWords, type FileRole } from '../../core/cards/files/clips'
import type { MediaFacts } from '../../core/media/facts'
import { remarksOf } from '../../core/media/remarks'
import { frameRateText } from '../../core/units/frameRate'
import { counted } from '../../core/units/quantity'
import type { ClipView } from '../../contract/cards'
import type { Db } from '../db/connection'
import type { ClipRow } from '../db/queries/cards'
import { companionsOf, takeSums } from '../db/queries/takes'

/** What belongs to a clip beside its main file, and what all of it comes to: bytes and seconds. */
export interface ClipFiles {
  readonly beside: string
  readonly parts: number
  readonly sizeBytes: number
  readonly seconds: number
}

/** The files of takes that begin with some media files, asked for in one go. */
export async function clipFiles(db: Db, clips: readonly ClipRow[]): Promise<(clip: ClipRow) => ClipFiles> {
  const ids = clips.map(({ id }) => id)
  const [files, sums] = await Promise.all([companionsOf(db, ids), takeSums(db, ids)])
  const counts = new Map<string | null, Map<FileRole, number>>()
  for (const { id, role, files: number } of files)
    counts.set(id, (counts.get(id) ?? new Map<FileRole, number>()).set(role, number))
  const sumOf = new Map(sums.map((sum) => [sum.id, sum]))
  return (clip) => {
    const take = sumOf.get(clip.id)
    return {
      beside: companionWords(counts.get(clip.id) ?? new Map()),
      parts: take?.parts ?? 1,
      sizeBytes: take?.sizeBytes ?? clip.sizeBytes,
      seconds: take?.seconds ?? clip.seconds,
    }
  }
}

const codingOf = ({ video, audio }: MediaFacts): string | null =>
  video
    ? video.bitDepth && video.chroma
      ? `${video.bitDepth} bit ${video.chroma}`
      : null
    : audio
      ? `${counted(audio.channels, 'channel')}, ${audio.sampleRateHz / 1000} kHz`
      : null

/** A clip as lists show it. */
export const clipView = (
  row: ClipRow,
  { beside, parts, sizeBytes, seconds }: ClipFiles,
  givenTo: string | null = null,
): ClipView => ({
  id: row.id,
  path: row.pathText,
  name: row.name,
  widthPx: row.probe?.video?.widthPx ?? null,
  heightPx: row.probe?.video?.heightPx ?? null,
  rate: row.probe?.video ? frameRateText(row.probe.video.rate) : null,
  frames: parts > 1 ? null : (row.probe?.video?.frames ?? null),
  seconds: row.probe ? seconds : null,
  codec: row.probe?.video?.codec ?? row.probe?.audio?.codec ?? null,
  sizeBytes,
  withSound: row.probe?.audio !== undefined,
  beside,
  parts,
  isRun: row.probe?.sequence !== undefined,
  recordedAt: row.recordedAt || null,
  coding: row.probe ? codingOf(row.probe) : null,
  remarks: row.probe ? remarksOf(row.probe).map((remark) => remark.short) : [],
  trouble: row.trouble,
  cut: row.cut,
  onCard: row.onCard,
  hasPicture: row.hasPicture,
  pictureMade: row.pictureMade,
  givenTo,
})
