import { frameRate } from '../units/frameRate'
import { FACTS_VERSION, type MediaFacts, type SoundTrack, type VideoTrack } from './facts'

/** A picture for unit tests: UHD at 25, four seconds, nothing odd. */
export function testPicture(change: Partial<VideoTrack> = {}): VideoTrack {
  const rate = change.rate ?? frameRate(25)
  const frames = change.frames ?? 100
  const widthPx = change.widthPx ?? 3840
  const heightPx = change.heightPx ?? 2160
  const seconds = change.seconds ?? (frames * rate.den) / rate.num
  return {
    index: 0,
    language: undefined,
    isDefault: true,
    codec: 'h264',
    profile: 'High',
    level: 51,
    widthPx,
    heightPx,
    codedWidthPx: widthPx,
    codedHeightPx: heightPx,
    displayWidthPx: widthPx,
    displayHeightPx: heightPx,
    cleanAperture: undefined,
    sampleAspect: '1:1',
    sampleAspectStated: true,
    rotationDegrees: 0,
    mirrored: false,
    fieldOrder: 'progressive',
    measuredFields: undefined,
    rate,
    cadence: { kind: 'constant', average: rate.num / rate.den, offGrid: 0, measuredFrames: frames },
    frames,
    storedFrames: frames,
    framesFrom: 'index',
    seconds,
    storedSeconds: seconds,
    startSeconds: 0,
    pixelFormat: 'yuv420p',
    bitDepth: 8,
    chroma: '4:2:0',
    range: 'limited',
    primaries: 'bt709',
    transfer: 'bt709',
    matrix: 'bt709',
    keyDistance: 12,
    bitsPerSecond: 40e6,
    ...change,
  }
}

export const testSound = (change: Partial<SoundTrack> = {}): SoundTrack => ({
  index: 1,
  language: undefined,
  isDefault: true,
  codec: 'aac',
  profile: 'LC',
  channels: 2,
  layout: 'stereo',
  sampleRateHz: 48_000,
  bits: undefined,
  seconds: 4,
  startSeconds: 0,
  bitsPerSecond: 192_000,
  ...change,
})

/** A clip for unit tests, with one picture and one stereo sound of the same length. */
export function testFacts(change: Partial<MediaFacts> = {}): MediaFacts {
  const video = 'video' in change ? change.video : testPicture()
  const audio = 'audio' in change ? change.audio : testSound({ seconds: video?.seconds ?? 4 })
  return {
    version: FACTS_VERSION,
    container: 'mov,mp4,m4a,3gp,3g2,mj2',
    brand: 'isom',
    seconds: video?.seconds ?? audio?.seconds ?? 0,
    startSeconds: 0,
    sizeBytes: 20_000_000,
    bitsPerSecond: 40_000_000,
    video,
    audio,
    videos: video ? [video] : [],
    sounds: audio ? [audio] : [],
    others: [],
    recordedAt: undefined,
    recordedFrom: undefined,
    timecode: undefined,
    timecodeFrom: undefined,
    indexFirst: true,
    broadcast: undefined,
    sidecar: [],
    bounds: [],
    ...change,
  }
}
