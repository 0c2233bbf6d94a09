import type { ClipRange } from '../../core/cards/review'

const SPEEDS = [0.25, 0.5, 1, 1.5, 2, 4] as const

/** What a person sees of a film that is played: the frame that is shown, from 0, and how it goes on. */
export interface Shown {
  readonly frame: number
  readonly playing: boolean
  readonly speed: number
  readonly looped: ClipRange | undefined
}

/** A film that is played, stepped through frame by frame, and looped. Times are frames of the clip, not of the screen. */
export class Playback {
  #film: HTMLVideoElement | null = null
  #shown: Shown = { frame: 0, playing: false, speed: 1, looped: undefined }
  #wanted = false
  #asked = 0
  #seconds = 0
  #onWatched: (seconds: number) => void = () => undefined
  readonly #listeners = new Set<() => void>()

  constructor(
    readonly length: number,
    readonly perSecond: number,
    /** How many of what it counts are a step. */
    readonly stepBy = 1,
  ) {}

  readonly shown = (): Shown => this.#shown

  readonly subscribe = (listener: () => void): (() => void) => {
    this.#listeners.add(listener)
    return () => this.#listeners.delete(listener)
  }

  /** Told seconds that really passed while playing, not those that were jumped over. */
  readonly tellWatched = (onWatched: (seconds: number) => void): void => {
    this.#onWatched = onWatched
  }

  /** The element that plays it, once it is there and once it goes. */
  readonly setFilm = (film: HTMLVideoElement | null): void => {
    cancelAnimationFrame(this.#asked)
    for (const [name, hear] of this.#hears) {
      this.#film?.removeEventListener(name, hear)
      film?.addEventListener(name, hear)
    }
    this.#film = film
    if (!film) return this.#show({ playing: false })
    film.playbackRate = this.#shown.speed
    if (this.#shown.frame > 0) this.seek(this.#shown.frame)
    if (this.#wanted) this.#play(film)
  }

  readonly toggle = (): void => {
    // The film may come a moment after the key that asks for it.
    if (!this.#film) this.#wanted = !this.#wanted
    else if (!this.#film.paused) this.#film.pause()
    else this.#play(this.#film)
  }

  readonly seek = (wanted: number): void => {
    const frame = Math.max(0, Math.min(this.length - 1, Math.round(wanted)))
    // Into the middle of the frame: its very beginning may round to the one before.
    if (this.#film) this.#film.currentTime = (frame + 0.5) / this.perSecond
    this.#show({ frame })
  }

  readonly step = (frames: number): void => {
    this.#film?.pause()
    this.seek(this.#shown.frame + frames * this.stepBy)
  }

  readonly faster = (by: 1 | -1): void => {
    const place = SPEEDS.findIndex((one) => one === this.#shown.speed) + by
    const speed = SPEEDS[Math.max(0, Math.min(SPEEDS.length - 1, place))] ?? 1
    if (this.#film) this.#film.playbackRate = speed
    this.#show({ speed })
  }

  readonly loop = (looped: ClipRange | undefined): void => this.#show({ looped })

  /** Does what a key says; false when the key means nothing to a player. */
  readonly key = ({ key, shiftKey }: { readonly key: string; readonly shiftKey: boolean }): boolean => {
    const far = shiftKey ? Math.round(this.perSecond / this.stepBy) : 1
    if (key === ' ') this.toggle()
    else if (key === 'ArrowLeft') this.step(-far)
    else if (key === 'ArrowRight') this.step(far)
    else if (key === '+' || key === '=') this.faster(1)
    else if (key === '-' || key === '−') this.faster(-1)
    else return false
    return true
  }

  #play(film: HTMLVideoElement): void {
    this.#wanted = false
    if (this.#shown.frame >= this.length - 1) this.seek(0)
    void film.play().catch(() => undefined)
  }

  readonly #follow = (): void => {
    const film = this.#film
    if (!film) return
    const frame = Math.max(0, Math.min(this.length - 1, Math.floor(film.currentTime * this.perSecond + 1e-6)))
    const passed = film.currentTime - this.#seconds
    this.#seconds = film.currentTime
    if (passed > 0 && passed < 1) this.#onWatched(passed)
    const { looped } = this.#shown
    if (looped && frame >= looped.to) this.seek(looped.from)
    else this.#show({ frame })
    if (!film.paused) this.#asked = requestAnimationFrame(this.#follow)
  }

  readonly #begun = (): void => {
    this.#seconds = this.#film?.currentTime ?? 0
    this.#show({ playing: true })
    cancelAnimationFrame(this.#asked)
    this.#asked = requestAnimationFrame(this.#follow)
  }

  readonly #held = (): void => this.#show({ playing: false })

  readonly #hears = [
    ['play', this.#begun],
    ['pause', this.#held],
    ['ended', this.#held],
  ] as const

  #show(change: Partial<Shown>): void {
    const next = { ...this.#shown, ...change }
    const same = (Object.keys(next) as (keyof Shown)[]).every((part) => next[part] === this.#shown[part])
    if (same) return
    this.#shown = next
    for (const listener of this.#listeners) listener()
  }
}
