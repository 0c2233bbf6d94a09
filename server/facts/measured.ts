import { FIRST_GUESS, learn, recordedBitsPerSecond } from '../../core/shoot/measured'
import { bitsPerSecondOf, nominalBitsPerSecond, type ModePicture } from '../../core/shoot/mode'
import { codecName } from '../../core/media/codecName'
import { parseFrameRate, sameRate } from '../../core/units/frameRate'
import type { MeasuredMode, MeasuredView } from '../../contract/shoot'
import type { Db } from '../db/connection'
import { cameras, modes } from '../db/queries/gear'
import { loadsWithoutCamera, offloads, recordedBy } from '../db/queries/measured'
import { planOf } from '../db/queries/shoot'

type OffloadRow = Awaited<ReturnType<typeof offloads>>[number]
type RecordedRow = Awaited<ReturnType<typeof recordedBy>>[number]

/** How fast cards are emptied here, in bytes per second. */
export const offloadLearned = (rows: readonly OffloadRow[]): MeasuredView['offload'] =>
  learn(
    rows.flatMap(({ id, label, sizeBytes, seconds, loadId }) =>
      seconds === null ? [] : [{ id, label, sizeBytes, seconds, typed: loadId === null }],
    ),
    (one) => one.sizeBytes / one.seconds,
    FIRST_GUESS.offloadBytesPerSecond,
  )

/** What raw frames became after export, for each byte on the card. */
export const expansionLearned = (rows: readonly OffloadRow[]): MeasuredView['expansion'] =>
  learn(
    rows.flatMap(({ id, label, sizeBytes, exportedBytes, loadId }) =>
      exportedBytes === null ? [] : [{ id, label, sizeBytes, exportedBytes, typed: loadId === null }],
    ),
    (one) => one.exportedBytes / one.sizeBytes,
    FIRST_GUESS.expansion,
  )

/** Whether clips of that kind are clips of the mode: frame, rate and codec are the same; sound alone has no frame. */
function isOfMode(row: RecordedRow, picture: ModePicture | undefined): boolean {
  if (!picture) return row.widthPx === 0
  const rate = parseFrameRate(row.rate)
  return (
    row.widthPx === picture.widthPx &&
    row.heightPx === picture.heightPx &&
    rate !== undefined &&
    sameRate(rate, picture.rate) &&
    (picture.coding.kind === 'raw' || codecName(row.codec).toLowerCase() === picture.codec.toLowerCase())
  )
}

/** What the modes of a production’s plan came to when they were filmed; without a plan, all modes of the gear book. */
export async function measuredView(db: Db, productionId: string): Promise<MeasuredView> {
  const [plan, allCameras, allModes, emptied, unknownLoads] = await Promise.all([
    planOf(db, productionId),
    cameras(db),
    modes(db),
    offloads(db),
    loadsWithoutCamera(db, productionId),
  ])
  const planned = new Set(plan.takes.map((one) => one.modeId))
  const wanted = allModes.filter((mode) => (planned.size > 0 ? planned.has(mode.id) : mode.putAwayAt === null))
  const recorded = await recordedBy(db, [...new Set(wanted.map((mode) => mode.cameraId))])
  return {
    modes: wanted.map((mode): MeasuredMode => {
      const own = recorded.filter((row) => row.cameraId === mode.cameraId && isOfMode(row, mode.figures.picture))
      const nominal = nominalBitsPerSecond(mode.figures)
      return {
        cameraId: mode.cameraId,
        camera: allCameras.find((camera) => camera.id === mode.cameraId)?.name ?? '',
        modeId: mode.id,
        mode: mode.name,
        nominal,
        inUse: bitsPerSecondOf(mode.figures),
        learned: learn(
          own.map((row) => ({
            label: row.label,
            production: row.production,
            bitsPerSecond: recordedBitsPerSecond(row),
            seconds: row.seconds,
          })),
          (one) => one.bitsPerSecond,
          nominal,
        ),
      }
    }),
    expansion: expansionLearned(emptied),
    offload: offloadLearned(emptied),
    unknownLoads,
  }
}
