import { fileCheck, type FileCheck } from '../media/check'
import type { MediaFacts } from '../media/facts'
import { frameRateText, sameRate } from '../units/frameRate'
import { frameSizeText } from '../units/frameSize'
import { proxyFrame } from './recipe'

/** What came out when the proxy was decoded from end to end. */
export interface DecodedProxy {
  readonly frames: number
  readonly errors: number
}

/**
 * A proxy against its original: exact rate, frame count, duration within half a frame, frame size of the recipe,
 * sample aspect, rotation, sound channels and start timecode. Common practice, no source.
 */
export function checkProxy(
  original: MediaFacts,
  proxy: MediaFacts,
  fraction: number,
  decoded?: DecodedProxy,
): FileCheck[] {
  const [from, to] = [original.video, proxy.video]
  if (!from || !to) return [fileCheck('Picture', false, 'a video track', 'none')]
  const wantedSize = proxyFrame(from, fraction)
  const halfFrame = from.rate.den / from.rate.num / 2
  const channels = (probe: MediaFacts) => (probe.audio ? `${probe.audio.channels} channels` : 'no sound')
  const decoding = decoded
    ? [
        fileCheck('Decoded frames', decoded.frames === to.frames, String(to.frames), String(decoded.frames)),
        fileCheck('Decoding', decoded.errors === 0, 'no errors', `${decoded.errors} errors`),
      ]
    : []
  return [
    ...decoding,
    fileCheck('Frames', from.frames === to.frames, String(from.frames), String(to.frames)),
    fileCheck('Frame rate', sameRate(from.rate, to.rate), frameRateText(from.rate), frameRateText(to.rate)),
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
    fileCheck('Sample aspect', from.sampleAspect === to.sampleAspect, from.sampleAspect, to.sampleAspect),
    fileCheck(
      'Rotation',
      to.rotationDegrees === from.rotationDegrees,
      `${from.rotationDegrees}°`,
      `${to.rotationDegrees}°`,
    ),
    fileCheck('Sound', channels(original) === channels(proxy), channels(original), channels(proxy)),
    fileCheck(
      'Start timecode',
      (original.timecode ?? 'none') === (proxy.timecode ?? 'none'),
      original.timecode ?? 'none',
      proxy.timecode ?? 'none',
    ),
  ]
}
