import { frameRate } from '../units/frameRate'
import { FACTS_VERSION, type MediaFacts, type SoundTrack, type VideoTrack } from './facts'
import { pixelLayout } from './pixelFormat'

/** What the reader before this one kept: less, under the same names. */
type Kept = Partial<Omit<MediaFacts, 'video' | 'audio'>> & {
  readonly video?: Partial<VideoTrack> & { readonly colour?: string }
  readonly audio?: Partial<SoundTrack>
}

/** Facts as they are kept in the database, with what an older reader did not know left open. They are read anew at the next look. */
export function currentFacts(kept: MediaFacts): MediaFacts {
  if (kept.version === FACTS_VERSION) return kept
  const old: Kept = kept
  const video = old.video && olderPicture(old.video)
  const audio = old.audio && olderSound(old.audio, old.seconds ?? 0)
  return {
    version: 1,
    container: old.container ?? 'unknown',
    brand: undefined,
    seconds: old.seconds ?? 0,
    startSeconds: 0,
    sizeBytes: old.sizeBytes ?? 0,
    bitsPerSecond: old.bitsPerSecond ?? 0,
    video,
    audio,
    videos: video ? [video] : [],
    sounds: audio ? [audio] : [],
    others: [],
    recordedAt: old.recordedAt,
    recordedFrom: undefined,
    timecode: old.timecode,
    timecodeFrom: undefined,
    indexFirst: old.indexFirst,
    broadcast: undefined,
    sidecar: [],
    bounds: [],
  }
}

function olderPicture(old: NonNullable<Kept['video']>): VideoTrack {
  const rate = old.rate ?? frameRate(1)
  const { widthPx = 0, heightPx = 0, frames = 0, seconds = 0, pixelFormat = 'unknown' } = old
  const [matrix, transfer, primaries] = (old.colour ?? '')
    .split('/')
    .map((name) => (name === 'none' ? undefined : name))
  const { bitDepth, chroma, fullRange } = pixelLayout(pixelFormat)
  return {
    index: 0,
    language: undefined,
    isDefault: true,
    codec: old.codec ?? 'unknown',
    profile: old.profile ?? '',
    level: old.level ?? 0,
    widthPx,
    heightPx,
    codedWidthPx: widthPx,
    codedHeightPx: heightPx,
    displayWidthPx: widthPx,
    displayHeightPx: heightPx,
    cleanAperture: undefined,
    sampleAspect: old.sampleAspect ?? '1:1',
    sampleAspectStated: false,
    rotationDegrees: old.rotationDegrees ?? 0,
    fieldOrder: undefined,
    measuredFields: undefined,
    rate,
    cadence: { kind: 'not measured', average: rate.num / rate.den, offGrid: 0, measuredFrames: 0 },
    frames,
    storedFrames: frames,
    framesFrom: 'length and rate',
    seconds,
    storedSeconds: seconds,
    startSeconds: 0,
    pixelFormat,
    bitDepth,
    chroma,
    range: fullRange ? 'full' : undefined,
    primaries: primaries || undefined,
    transfer: transfer || undefined,
    matrix: matrix || undefined,
    keyDistance: undefined,
    bitsPerSecond: old.bitsPerSecond ?? 0,
  }
}

const olderSound = (old: NonNullable<Kept['audio']>, seconds: number): SoundTrack => ({
  index: 1,
  language: undefined,
  isDefault: true,
  codec: old.codec ?? 'unknown',
  profile: '',
  channels: old.channels ?? 0,
  layout: undefined,
  sampleRateHz: old.sampleRateHz ?? 0,
  bits: undefined,
  seconds,
  startSeconds: 0,
  bitsPerSecond: 0,
})
