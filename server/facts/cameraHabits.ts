import { habitsOf } from '../../core/cards/files/habit'
import type { Db } from '../db/connection'
import { cameraFileNames } from '../db/queries/unattended'

/** How files of each camera are called, from the newest loads that somebody said it filmed. */
export const cameraHabits = async (db: Db): Promise<{ cameraId: string; habits: string[] }[]> =>
  (await cameraFileNames(db)).map(({ cameraId, names }) => ({ cameraId, habits: habitsOf(names) }))
