import { useCallback, useEffect, useRef, useState } from 'react'
import type { ClipRange } from '../../core/cards/review'
import type { FrameRate } from '../../core/units/frameRate'

export const SPEEDS = [0.25, 0.5, 1, 1.5, 2, 4] as const

export interface Player {
  /** The element that plays it, told once it is there and once it goes. */
  readonly setFilm: (film: HTMLVideoElement | null) => void
  /** The frame that is shown, from 0. */
  readonly frame: number
  readonly playing: boolean
  readonly speed: number
  readonly looped: ClipRange | undefined
  readonly toggle: () => void
  readonly seek: (frame: number) => void
  readonly step: (frames: number) => void
  readonly faster: (by: 1 | -1) => void
  readonly loop: (range: ClipRange | undefined) => void
}

interface Played {
  readonly ticks: FrameRate
  /** How many frames it has. */
  readonly length: number
  /** Called with seconds that really passed while playing, not those that were jumped over. */
  readonly onWatched?: (seconds: number) => void
}

/** A film that is played, stepped through frame by frame, and looped. Times are frames of the clip, not of the screen. */
export function usePlayer({ ticks, length, onWatched }: Played): Player {
  const [film, setFilm] = useState<HTMLVideoElement | null>(null)
  const [frame, setFrame] = useState(0)
  const [playing, setPlaying] = useState(false)
  const [speed, setSpeed] = useState<number>(1)
  const [looped, setLooped] = useState<ClipRange>()
  const perSecond = ticks.num / ticks.den
  const at = useRef({ frame: 0, seconds: 0 })
  const wanted = useRef(false)

  const seek = useCallback(
    (wanted: number) => {
      const next = Math.max(0, Math.min(length - 1, Math.round(wanted)))
      at.current.frame = next
      setFrame(next)
      // Into the middle of the frame: its very beginning may round to the one before.
      if (film) film.currentTime = (next + 0.5) / perSecond
    },
    [film, length, perSecond],
  )
  const step = useCallback(
    (frames: number) => {
      film?.pause()
      seek(at.current.frame + frames)
    },
    [film, seek],
  )
  const toggle = useCallback(() => {
    // The film may come a moment after the key that asks for it.
    if (!film) {
      wanted.current = !wanted.current
      return
    }
    if (!film.paused) return film.pause()
    if (at.current.frame >= length - 1) seek(0)
    void film.play().catch(() => undefined)
  }, [film, length, seek])
  const faster = useCallback((by: 1 | -1) => {
    setSpeed((now) => {
      const place = SPEEDS.findIndex((one) => one === now) + by
      return SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, place))] ?? 1
    })
  }, [])
  useEffect(() => {
    if (!film || !wanted.current) return
    wanted.current = false
    void film.play().catch(() => undefined)
  }, [film])
  useEffect(() => {
    if (film) film.playbackRate = speed
  }, [film, speed, playing])

  useEffect(() => {
    const video = film
    if (!video) return
    let asked = 0
    const follow = () => {
      const shown = Math.max(0, Math.min(length - 1, Math.floor(video.currentTime * perSecond + 1e-6)))
      const passed = video.currentTime - at.current.seconds
      at.current.seconds = video.currentTime
      if (passed > 0 && passed < 1) onWatched?.(passed)
      if (looped && shown >= looped.to) seek(looped.from)
      else if (shown !== at.current.frame) {
        at.current.frame = shown
        setFrame(shown)
      }
      if (!video.paused) asked = requestAnimationFrame(follow)
    }
    const begin = () => {
      setPlaying(true)
      at.current.seconds = video.currentTime
      cancelAnimationFrame(asked)
      asked = requestAnimationFrame(follow)
    }
    const hold = () => setPlaying(false)
    video.addEventListener('play', begin)
    video.addEventListener('pause', hold)
    video.addEventListener('ended', hold)
    if (!video.paused) begin()
    return () => {
      cancelAnimationFrame(asked)
      video.removeEventListener('play', begin)
      video.removeEventListener('pause', hold)
      video.removeEventListener('ended', hold)
    }
  }, [film, length, perSecond, looped, seek, onWatched])

  return { setFilm, frame, playing, speed, looped, toggle, seek, step, faster, loop: setLooped }
}

/** Does what a key says to a player; false when the key means nothing to it. */
export function playerKey(player: Player, event: { key: string; shiftKey: boolean }, perSecond: number): boolean {
  const far = event.shiftKey ? Math.round(perSecond) : 1
  const acts: Record<string, () => void> = {
    ' ': player.toggle,
    ArrowLeft: () => player.step(-far),
    ArrowRight: () => player.step(far),
    '+': () => player.faster(1),
    '=': () => player.faster(1),
    '-': () => player.faster(-1),
    '−': () => player.faster(-1),
  }
  const act = acts[event.key]
  act?.()
  return act !== undefined
}
