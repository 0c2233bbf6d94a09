import type { ClipRange } from '../../../core/cards/review/review'
import { fileAt } from '../../../core/cards/review/takeReview'
import { PLAYER, shortcutOf, type Press } from '../shortcuts'

const SPEEDS = [0.25, 0.5, 1, 1.5, 2, 4] as const

/** What a person sees of a film that is played: the frame that is shown, from 0, and how it goes on. */
export interface Shown {
  readonly frame: number
  /** In which of the take's files it lies. */
  readonly file: number
  readonly playing: boolean
  readonly speed: number
  readonly looped: ClipRange | undefined
}

/** What a player needs of what plays a file: a video element has it. */
export interface Film extends EventTarget {
  readonly paused: boolean
  currentTime: number
  playbackRate: number
  play: () => Promise<void>
  pause: () => void
}

/**
 * A take that is played, stepped through frame by frame, and looped. Times are frames of the take, not of the screen.
 * It may be several files: the one that is shown is played by an element of its own.
 */
export class Playback {
  #film: Film | null = null
  #shown: Shown = { frame: 0, file: 0, playing: false, speed: 1, looped: undefined }
  #wanted = false
  #asked = 0
  #seconds = 0
  #onWatched: (seconds: number) => void = () => undefined
  readonly #listeners = new Set<() => void>()

  readonly length: number

  constructor(
    /** Of each of its files. */
    readonly lengths: readonly number[],
    readonly perSecond: number,
    /** How many of what it counts are a step. */
    readonly stepBy = 1,
  ) {
    this.length = lengths.reduce((sum, length) => sum + length, 0)
  }

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
  readonly setFilm = (film: Film | null): void => {
    this.#leave()
    this.#film = film
    if (!film) return this.#show({ playing: false })
    for (const [name, hear] of this.#hears) film.addEventListener(name, hear)
    film.playbackRate = this.#shown.speed
    if (this.#shown.frame > this.#start) this.seek(this.#shown.frame)
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
    const { file, start } = fileAt(this.lengths, frame)
    if (file !== this.#shown.file) return this.#turnTo(file, frame)
    // Into the middle of the frame: its very beginning may round to the one before.
    if (this.#film) this.#film.currentTime = (frame - start + 0.5) / this.perSecond
    this.#show({ frame })
  }

  /** Another file is shown; its element comes a moment later, and plays on where this one played. */
  #turnTo(file: number, frame: number, playOn = this.#film?.paused === false): void {
    this.#wanted ||= playOn
    const before = this.#film
    this.#leave()
    this.#film = null
    before?.pause()
    this.#show({ file, frame, playing: false })
  }

  /** What the element that was shown still tells is of another file. */
  #leave(): void {
    cancelAnimationFrame(this.#asked)
    for (const [name, hear] of this.#hears) this.#film?.removeEventListener(name, hear)
  }

  /** Where the file begins that is shown. */
  get #start(): number {
    return this.lengths.slice(0, this.#shown.file).reduce((sum, length) => sum + length, 0)
  }

  readonly step = (frames: number): void => {
    this.#wanted = false
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
  readonly key = (event: Press): boolean => {
    const pressed = shortcutOf(PLAYER, event)
    const far = event.shiftKey ? Math.round(this.perSecond / this.stepBy) : 1
    if (pressed === 'play') this.toggle()
    else if (pressed === 'back') this.step(-far)
    else if (pressed === 'on') this.step(far)
    else if (pressed === 'faster') this.faster(1)
    else if (pressed === 'slower') this.faster(-1)
    else return false
    return true
  }

  #play(film: Film): void {
    this.#wanted = false
    if (this.#shown.frame >= this.length - 1) {
      if (this.#shown.file > 0) return this.#turnTo(0, 0, true)
      this.seek(0)
    }
    void film.play().catch(() => undefined)
  }

  readonly #follow = (): void => {
    const film = this.#film
    if (!film) return
    const start = this.#start
    const last = start + (this.lengths[this.#shown.file] ?? 1) - 1
    const frame = Math.max(0, Math.min(last, start + Math.floor(film.currentTime * this.perSecond + 1e-6)))
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

  /** A file ended: the take goes on in the next one, or round in its loop. */
  readonly #ended = (): void => {
    const [next, { looped }] = [this.#shown.file + 1, this.#shown]
    const end = this.#start + (this.lengths[this.#shown.file] ?? 0)
    if (looped && looped.to === end) {
      const { file } = fileAt(this.lengths, looped.from)
      if (file !== this.#shown.file) return this.#turnTo(file, looped.from, true)
      this.seek(looped.from)
      void this.#film?.play().catch(() => undefined)
    } else if (next < this.lengths.length) this.#turnTo(next, end, true)
    else this.#held()
  }

  readonly #hears = [
    ['play', this.#begun],
    ['pause', this.#held],
    ['ended', this.#ended],
  ] as const

  #show(change: Partial<Shown>): void {
    const next = { ...this.#shown, ...change }
    const same = (Object.keys(next) as (keyof Shown)[]).every((part) => next[part] === this.#shown[part])
    if (same) return
    this.#shown = next
    for (const listener of this.#listeners) listener()
  }
}
