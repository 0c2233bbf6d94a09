import { frameRate, parseFrameRate } from '../../core/units/frameRate'
import type { cameraPlans } from '../db/queries/shoot'

export const planOf = (row: Awaited<ReturnType<typeof cameraPlans>>[number]) => ({
  camera: row.camera,
  widthPx: row.widthPx,
  heightPx: row.heightPx,
  rate: parseFrameRate(row.rate) ?? frameRate(25),
  videoBitsPerSecond: row.videoBitsPerSecond,
  audioBitsPerSecond: row.audioBitsPerSecond,
  secondsPerTake: row.secondsPerTake,
  takes: row.takes,
  cardBytes: row.cardBytes,
  cardBytesPerSecond: row.cardBytesPerSecond,
  fillLimit: row.fillLimit,
})
