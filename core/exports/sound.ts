import type { MediaFacts, SoundTrack } from '../media/facts'

/** How the channels of a master's sound become two. */
export type Mix = 'both' | 'as is' | 'down-mix' | 'first two'

/** What becomes of the sound of a master. */
export interface SoundPlan {
  readonly track: SoundTrack
  readonly mix: Mix
  /** By how much the sound begins after the picture; negative when it begins before. */
  readonly offsetSeconds: number
  /** In words: which track, how it is mixed, what is cut or padded. */
  readonly says: readonly string[]
}

/** −3 dB. Source: ITU-R BS.775, table 2: centre and surrounds go into left and right with 0.7071. */
export const DOWN_MIX = 0.7071

const LAYOUTS = new Set(['3.0', '4.0', 'quad', '5.0', '5.1', '7.1', '6.1'])

const layoutName = (track: SoundTrack) => track.layout?.replace(/\((side|back)\)/, '')

/** Which way the channels of a track become two. */
export function mixOf(track: SoundTrack): Mix {
  if (track.channels === 1) return 'both'
  if (track.channels === 2) return 'as is'
  return LAYOUTS.has(layoutName(track) ?? '') ? 'down-mix' : 'first two'
}

/** A track as it is offered: `1: stereo, eng`. */
export function soundLabel(track: SoundTrack, at: number): string {
  const channels = track.layout ?? (track.channels === 1 ? 'mono' : `${track.channels} channels`)
  return `${at + 1}: ${[channels, track.language].filter(Boolean).join(', ')}`
}

const MIXES: Record<Mix, string | undefined> = {
  both: 'The one channel goes to left and right.',
  'as is': undefined,
  'down-mix':
    'More than two channels are mixed down by ITU-R BS.775: centre and surrounds with 0.7071, the ' +
    'low-frequency channel left out.',
  'first two': 'The channels have no layout; the first two go out as left and right.',
}

/** Lengths closer than this are taken for equal: a frame of compressed sound is never whole at the end. */
const SAME_SECONDS = 0.05

/**
 * The sound of a deliverable: one track, two channels, exactly as long as the picture. What goes on after it is cut,
 * what is missing is silence. `undefined` for a silent master.
 */
export function soundPlan(facts: MediaFacts, trackIndex: number | null): SoundPlan | undefined {
  const { video, sounds } = facts
  const track = sounds.find((one) => one.index === trackIndex) ?? facts.audio
  if (!video || !track) return undefined
  const mix = mixOf(track)
  const offsetSeconds = track.startSeconds - video.startSeconds
  const over = offsetSeconds + track.seconds - video.seconds
  const left = sounds.length - 1
  // Facts that came over the wire hold the default track twice.
  const place = sounds.findIndex((one) => one.index === track.index)
  return {
    track,
    mix,
    offsetSeconds,
    says: [
      ...(left > 0
        ? [
            `Sound ${soundLabel(track, place)} goes out, ` +
              `${left === 1 ? 'the other is' : `the other ${left} are`} left out.`,
          ]
        : []),
      ...(MIXES[mix] ? [MIXES[mix]] : []),
      ...(over > SAME_SECONDS ? [`The sound goes on ${over.toFixed(2)} s after the picture and is cut there.`] : []),
      ...(over < -SAME_SECONDS ? [`The sound ends ${(-over).toFixed(2)} s before the picture; silence follows.`] : []),
      ...(offsetSeconds > SAME_SECONDS
        ? [`The sound begins ${offsetSeconds.toFixed(2)} s after the picture; silence is put before.`]
        : []),
    ],
  }
}
