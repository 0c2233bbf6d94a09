import { allPass, decodedChecks, fileCheck, type FileCheck } from '../media/check'
import { colourTags } from '../media/colour'
import {
  isInterlaced,
  isVariable,
  type CleanAperture,
  type MediaFacts,
  type SoundTrack,
  type VideoTrack,
} from '../media/facts'
import { soundCheck, type SoundCompared } from '../media/compareSound'
import { isSameOrientation, orientationText } from '../media/orientation'
import { frameRateText, sameRate } from '../units/frameRate'
import { frameSizeText } from '../units/frameSize'
import { plainLayout, proxyAperture, proxyFrame, proxyLayout } from './recipe'

/** What came out when the proxy was decoded from end to end. */
export interface DecodedProxy {
  readonly frames: number
  readonly errors: number
  /** The time stamps of both files side by side; `undefined` for a proxy that was made before they were compared. */
  readonly times: TimesCompared | undefined
  /** Its sound against the original's, track by track; `undefined` for a proxy that was made before it was compared. */
  readonly sounds?: readonly SoundCompared[] | undefined
}

/** How a proxy stands to its original; one that was made before its sound was compared is to be checked. */
export type ProxyState = 'unchecked' | 'equal' | 'differs'

export function proxyState(original: MediaFacts, checks: readonly FileCheck[], decoded?: DecodedProxy): ProxyState {
  if (!allPass(checks)) return 'differs'
  return original.sounds.length > 0 && decoded?.sounds === undefined ? 'unchecked' : 'equal'
}

/** Two lists of time stamps, frame by frame. */
export interface TimesCompared {
  readonly frames: number
  /** The largest difference between the times of the same frame, each counted from the first frame. */
  readonly worstSeconds: number
}

/** Compares when frames are shown, each list counted from its first: `frames` is how many stand in both. */
export function compareTimes(original: readonly number[], proxy: readonly number[]): TimesCompared {
  const [from, to] = [original[0] ?? 0, proxy[0] ?? 0]
  const frames = Math.min(original.length, proxy.length)
  let worstSeconds = 0
  for (let at = 0; at < frames; at += 1)
    worstSeconds = Math.max(worstSeconds, Math.abs((original[at] ?? 0) - from - ((proxy[at] ?? 0) - to)))
  return { frames, worstSeconds }
}

/** Containers that count in thousandths round each time by half of one; two may add up. */
const ROUNDING_SECONDS = 0.002
/** A frame of AAC at 48 kHz has 1024 samples; a track may end or begin with a part of one. */
const SOUND_SLACK_SECONDS = 0.06

const soundText = (sounds: readonly SoundTrack[]) =>
  sounds.length === 0
    ? 'no sound'
    : sounds.map((track) => plainLayout(track.layout) ?? `${track.channels} channels`).join(', ')

const sameSounds = (a: readonly SoundTrack[], b: readonly SoundTrack[]) =>
  a.length === b.length &&
  a.every((track, at) => {
    const [wanted, other] = [proxyLayout(track), b[at]]
    return other?.channels === track.channels && (wanted === undefined || wanted === plainLayout(other.layout))
  })

/**
 * A proxy against its original: time stamp of each frame, rate, frame count, duration within half a frame, frame size
 * of the recipe, sample aspect, scan, rotation, colours and range, all sound tracks with their layouts and offsets,
 * what they sound like second by second, and start timecode. Common practice, no source.
 */
export function checkProxy(
  original: MediaFacts,
  proxy: MediaFacts,
  fraction: number,
  decoded?: DecodedProxy,
): FileCheck[] {
  const [from, to] = [original.video, proxy.video]
  if (!from || !to) return [fileCheck('Picture', false, 'a video track', 'none')]
  return [
    ...(decoded ? decodingChecks(from, to, decoded) : []),
    ...pictureChecks(from, to, fraction),
    ...soundChecks(original, proxy),
    ...(decoded?.sounds ?? []).map((sound, at, all) =>
      soundCheck(`Sound${all.length > 1 ? ` ${at + 1}` : ''}, second by second`, sound),
    ),
    fileCheck(
      'Start timecode',
      (original.timecode ?? 'none') === (proxy.timecode ?? 'none'),
      original.timecode ?? 'none',
      proxy.timecode ?? 'none',
    ),
  ]
}

function decodingChecks(from: VideoTrack, to: VideoTrack, { times, frames, errors }: DecodedProxy): FileCheck[] {
  const period = from.rate.den / from.rate.num
  // Film with pull-down lies up to a field beside its own grid, which the proxy is on: two fifths of a frame.
  const slack = from.cadence.pulldown ? period * 0.4 + ROUNDING_SECONDS : Math.min(period / 4, ROUNDING_SECONDS)
  const worst = times && `${times.frames} compared, ${(times.worstSeconds * 1000).toFixed(1)} ms apart at most`
  return [
    ...decodedChecks(to.frames, { frames, errors }),
    ...(times
      ? [
          fileCheck(
            'Time stamps',
            times.frames === from.frames && times.worstSeconds <= slack,
            `${from.frames}, each within ${(slack * 1000).toFixed(1)} ms`,
            worst ?? '',
          ),
        ]
      : []),
  ]
}

const rateText = (video: VideoTrack) => (isVariable(video) ? 'variable' : frameRateText(video.rate))

function pictureChecks(from: VideoTrack, to: VideoTrack, fraction: number): FileCheck[] {
  const wantedSize = proxyFrame(from, fraction)
  const halfFrame = from.rate.den / from.rate.num / 2
  const scan = isInterlaced(from) || to.fieldOrder === undefined ? 'progressive' : (from.fieldOrder ?? 'progressive')
  const rgb = from.chroma === 'RGB'
  const [colours, range] = rgb ? ['BT.709', 'limited'] : [colourTags(from), from.range]
  return [
    fileCheck('Frames', from.frames === to.frames, String(from.frames), String(to.frames)),
    fileCheck(
      'Frame rate',
      isVariable(from) ? isVariable(to) : sameRate(from.rate, to.rate) && !isVariable(to),
      rateText(from),
      rateText(to),
    ),
    fileCheck(
      'Duration',
      Math.abs(from.seconds - to.seconds) <= halfFrame,
      `${from.seconds.toFixed(3)} s ± half a frame`,
      `${to.seconds.toFixed(3)} s`,
    ),
    fileCheck(
      'Frame size',
      to.widthPx === wantedSize.widthPx && to.heightPx === wantedSize.heightPx,
      frameSizeText(wantedSize),
      frameSizeText(to),
    ),
    ...(from.cleanAperture || to.cleanAperture ? [apertureCheck(from, to)] : []),
    fileCheck('Sample aspect', from.sampleAspect === to.sampleAspect, from.sampleAspect, to.sampleAspect),
    fileCheck('Scan', (to.fieldOrder ?? 'progressive') === scan, scan, to.fieldOrder ?? 'not stated'),
    fileCheck('Rotation', isSameOrientation(from, to), orientationText(from), orientationText(to)),
    fileCheck('Colour tags', colours === colourTags(to), colours ?? '', colourTags(to)),
    // Limited range is what a file means that says nothing.
    fileCheck(
      'Range',
      (range ?? 'limited') === (to.range ?? 'limited'),
      range ?? 'limited, not stated',
      to.range ?? 'limited, not stated',
    ),
  ]
}

const apertureText = (clean: CleanAperture | undefined) =>
  clean ? `${frameSizeText(clean)} at ${clean.x}, ${clean.y}` : 'the whole frame'

function apertureCheck(from: VideoTrack, to: VideoTrack): FileCheck {
  const wanted = proxyAperture(from, to)
  const found = to.cleanAperture
  const isThere =
    wanted && found
      ? (['x', 'y', 'widthPx', 'heightPx'] as const).every((side) => Math.abs(wanted[side] - found[side]) <= 1)
      : wanted === found
  return fileCheck('Clean aperture', isThere, apertureText(wanted), apertureText(found))
}

function soundChecks(original: MediaFacts, proxy: MediaFacts): FileCheck[] {
  const checks = [
    fileCheck('Sound', sameSounds(original.sounds, proxy.sounds), soundText(original.sounds), soundText(proxy.sounds)),
  ]
  const offset = ({ video, audio }: MediaFacts) => (audio?.startSeconds ?? 0) - (video?.startSeconds ?? 0)
  if (original.audio && proxy.audio && original.version === proxy.version)
    checks.push(
      fileCheck(
        'Sound against picture',
        Math.abs(offset(original) - offset(proxy)) <= SOUND_SLACK_SECONDS &&
          Math.abs(original.audio.seconds - proxy.audio.seconds) <= SOUND_SLACK_SECONDS * 2,
        `${offset(original).toFixed(2)} s after it, ${original.audio.seconds.toFixed(2)} s long`,
        `${offset(proxy).toFixed(2)} s after it, ${proxy.audio.seconds.toFixed(2)} s long`,
      ),
    )
  return checks
}
