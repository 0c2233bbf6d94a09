import type { Db } from '../connection'

/** Clips of a load that can be played from a copy, as they were filmed. */
export const playableClips = (db: Db, loadId: string) =>
  db
    .selectFrom('mediaFile')
    .select(['id', 'name', 'entryId', 'sizeBytes', 'probe', 'wrong'])
    .where('loadId', '=', loadId)
    .where('shown', '=', true)
    .where('goesOn', '=', false)
    .where('playable', '=', true)
    .orderBy('filmedOrder')
    .execute()
