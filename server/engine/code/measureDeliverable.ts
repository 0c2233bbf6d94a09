import { isLookedAt, type MeasuredDelivery } from '../../../core/exports/check'
import type { DeliveryPlan } from '../../../core/exports/plan'
import type { MediaFacts, VideoTrack } from '../../../core/media/facts'
import { compareSounds } from './compareSounds'
import { measureFields } from '../probe/measureFields'
import { measureBlack } from '../picture/picture'
import { mixFilters } from './soundMix'
import type { ToolControl } from '../tool/tool'
import { decodeWhole } from './transcode'

interface Rendered {
  readonly master: Buffer
  readonly file: Buffer
  readonly plan: DeliveryPlan
  readonly made: Pick<MediaFacts, 'audio'> & { readonly video: VideoTrack }
  /** By how much the mix was lowered. */
  readonly loweredDb: number
}

/** What only decoding shows of a deliverable: faults, black, bars, fields, and whether it sounds as its master does. */
export async function measureDeliverable(
  { master, file, plan, made, loweredDb }: Rendered,
  control?: ToolControl,
): Promise<Omit<MeasuredDelivery, 'detailBitsPerSecond'>> {
  const { sound, video } = plan
  return {
    ...(await measureBlack(file, made.video, control)),
    decoded: await decodeWhole(file, made.video, control),
    fields: isLookedAt(plan) ? await measureFields(file, made.video, control) : undefined,
    loweredDb,
    ...(sound &&
      made.audio?.channels === 2 && {
        sound: await compareSounds(
          {
            path: master,
            track: sound.track,
            pictureStartSeconds: video.startSeconds,
            filters: mixFilters(sound, loweredDb),
          },
          { path: file, track: made.audio, pictureStartSeconds: made.video.startSeconds },
          2,
          control,
        ),
      }),
  }
}
