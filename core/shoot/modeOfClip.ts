import { codecName } from '../media/codecName'
import type { MediaFacts, SoundTrack } from '../media/facts'
import { frameRateLabel } from '../units/frameRate'
import { frameSizeText } from '../units/frameSize'
import { CHROMAS, type RecordingMode } from './mode'

/** Bits that a sound track takes a second: as it says, else by its samples. */
const soundBits = (sound: SoundTrack): number =>
  sound.bitsPerSecond > 0 ? sound.bitsPerSecond : sound.channels * sound.sampleRateHz * (sound.bits ?? 16)

/**
 * The recording mode that a real clip was filmed in, with what it came to in all: bytes × 8 ÷ seconds. `undefined` when
 * it has no length.
 */
export function modeOfFacts(facts: MediaFacts, sizeBytes: number): Omit<RecordingMode, 'id'> | undefined {
  const { video, seconds } = facts
  if (!(seconds > 0)) return undefined
  const measuredBitsPerSecond = Math.round((sizeBytes * 8) / seconds)
  const audioBitsPerSecond = Math.round(facts.sounds.reduce((sum, sound) => sum + soundBits(sound), 0))
  if (!video) {
    const name = facts.audio ? `${codecName(facts.audio.codec)}, ${facts.audio.channels} channels` : 'Sound'
    return { name, picture: undefined, audioBitsPerSecond, proxyBitsPerSecond: 0, measuredBitsPerSecond }
  }
  const { widthPx, heightPx, rate } = video
  const codec = codecName(video.codec)
  return {
    name: `${frameSizeText(video)} at ${frameRateLabel(rate)}, ${codec}`,
    picture: {
      ...{ widthPx, heightPx, rate, codec },
      bitDepth: video.bitDepth ?? 8,
      chroma: CHROMAS.find((one) => one === video.chroma) ?? '4:4:4',
      coding: { kind: 'coded', bitsPerSecond: Math.max(1000, measuredBitsPerSecond - audioBitsPerSecond) },
    },
    audioBitsPerSecond,
    proxyBitsPerSecond: 0,
    measuredBitsPerSecond,
  }
}
