import type { Film } from './playback'

/** The rate of what is drawn is counted over so long. */
const COUNTED_MS = 2000

/**
 * A run of frames that is played like a film: time passes as it does, and the frame of the moment is drawn as soon as
 * the one before is there, so that frames are left out rather than shown late.
 */
export class RunFilm extends EventTarget implements Film {
  paused = true
  playbackRate = 1
  #at = 0
  #begun = { at: 0, ms: 0 }
  #drawn: number[] = []

  constructor(
    readonly seconds: number,
    /** Shows the frame at a time; resolves once it is seen. */
    readonly draw: (seconds: number) => Promise<void>,
    /** Told how many frames were drawn a second. */
    readonly onRate: (perSecond: number) => void,
    readonly now: () => number = () => performance.now(),
  ) {
    super()
  }

  get currentTime(): number {
    if (this.paused) return this.#at
    const passed = ((this.now() - this.#begun.ms) / 1000) * this.playbackRate
    return Math.min(this.seconds, this.#begun.at + passed)
  }

  set currentTime(seconds: number) {
    this.#at = Math.max(0, Math.min(this.seconds, seconds))
    this.#begun = { at: this.#at, ms: this.now() }
    if (this.paused) void this.draw(this.#at).catch(() => undefined)
  }

  async play(): Promise<void> {
    if (!this.paused) return
    this.#begun = { at: this.#at, ms: this.now() }
    this.#drawn = [this.#begun.ms]
    this.paused = false
    this.dispatchEvent(new Event('play'))
    while (!this.paused && this.currentTime < this.seconds) {
      // A frame that cannot be drawn holds nothing up.
      await this.draw(this.currentTime).catch(() => undefined)
      this.#count()
    }
    if (this.paused) return
    this.pause()
    this.dispatchEvent(new Event('ended'))
  }

  pause(): void {
    if (this.paused) return
    this.#at = this.currentTime
    this.paused = true
    this.dispatchEvent(new Event('pause'))
  }

  #count(): void {
    const now = this.now()
    this.#drawn = [...this.#drawn, now].filter((ms, at, all) => now - ms <= COUNTED_MS || at >= all.length - 2)
    const [first] = this.#drawn
    if (first !== undefined && now > first) this.onRate(((this.#drawn.length - 1) * 1000) / (now - first))
  }
}
