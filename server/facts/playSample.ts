import { playSample } from '../../core/copies/playSample'
import type { PlaySample } from '../../contract/copies'
import type { Db } from '../db/connection'
import type { LoadRow } from '../db/queries/cards'
import { playableClips } from '../db/queries/playable'
import { plays } from '../../core/media/plays'
import { loadStates } from './loadStates'

interface SampleAsked {
  readonly load: LoadRow
  readonly volumeId: string
  readonly host: string
  readonly seed: string
}

/** Clips of one copy that are worth a look, drawn by risk. */
export async function samplePlayed(db: Db, { load, volumeId, host, seed }: SampleAsked): Promise<PlaySample> {
  const [clips, [state]] = await Promise.all([
    playableClips(db, load.id),
    loadStates(db, [load], { host, now: Date.now(), looked: true }),
  ])
  const watched = new Set(state?.copies.find((copy) => copy.volumeId === volumeId)?.filesPlayed)
  const drawn = playSample(
    clips.map(({ id, sizeBytes, probe, entryId, wrong }) => ({
      ...{ id, sizeBytes, seconds: probe?.seconds ?? 0, isWatched: watched.has(entryId) },
      ...{ keyDistance: probe?.video?.keyDistance ?? 1, isOdd: wrong },
    })),
    seed,
  )
  return {
    clips: drawn.flatMap(({ id, why, pieces }) => {
      const clip = clips.find((one) => one.id === id)
      const asPreview = !clip?.probe || !plays(clip.probe)
      return clip ? [{ clipId: id, name: clip.name, why, pieces, asPreview }] : []
    }),
  }
}
