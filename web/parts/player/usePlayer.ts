import { useEffect, useState, useSyncExternalStore } from 'react'
import type { FrameRate } from '../../../core/units/frameRate'
import { Playback, type Shown } from './playback'

export interface Player extends Shown {
  readonly playback: Playback
}

interface Played {
  readonly ticks: FrameRate
  /** How many frames each of its files has. */
  readonly lengths: readonly number[]
  readonly step: number
  readonly onWatched: (seconds: number) => void
}

/** A player for one take; another take needs another one. */
export function usePlayer({ ticks, lengths, step, onWatched }: Played): Player {
  const [playback] = useState(() => new Playback(lengths, ticks.num / ticks.den, step))
  const shown = useSyncExternalStore(playback.subscribe, playback.shown)
  useEffect(() => playback.tellWatched(onWatched), [playback, onWatched])
  return { ...shown, playback }
}
