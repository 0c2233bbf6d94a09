import { describe, expect, it, vi } from 'vitest'
import { Playback } from './playback'

/** What a player needs of a video element, with a clock that the test moves. */
class Film extends EventTarget {
  paused = true
  currentTime = 0
  playbackRate = 1
  play(): Promise<void> {
    this.paused = false
    this.dispatchEvent(new Event('play'))
    return Promise.resolve()
  }
  pause(): void {
    this.paused = true
    this.dispatchEvent(new Event('pause'))
  }
}

function started(lengths: number | readonly number[] = 100, perSecond = 25, step?: number) {
  const frames: (() => void)[] = []
  vi.stubGlobal('requestAnimationFrame', (work: () => void) => frames.push(work))
  vi.stubGlobal('cancelAnimationFrame', () => undefined)
  const film = new Film()
  const playback = new Playback([lengths].flat(), perSecond, step)
  const pass = (seconds: number) => {
    film.currentTime += seconds
    frames.splice(0).forEach((work) => work())
  }
  return { film, playback, pass, show: () => playback.setFilm(film) }
}

describe('a film that is played', () => {
  it('is stepped into the middle of each frame, and not past its ends', () => {
    const { film, playback, show } = started()
    show()
    playback.step(1)
    expect([playback.shown().frame, film.currentTime]).toEqual([1, 1.5 / 25])
    playback.step(-5)
    expect(playback.shown().frame).toBe(0)
    playback.step(1000)
    expect(playback.shown().frame).toBe(99)
  })

  it('of variable rate is stepped through by about a frame, and by a second', () => {
    const { playback, show } = started(7000, 1000, 40)
    show()
    playback.step(1)
    expect(playback.shown().frame).toBe(40)
    playback.key({ key: 'ArrowRight', shiftKey: true })
    expect(playback.shown().frame).toBe(1040)
    playback.key({ key: 'ArrowLeft', shiftKey: false })
    expect(playback.shown().frame).toBe(1000)
    playback.seek(6500)
    expect(playback.shown().frame).toBe(6500)
  })

  it('begins once it is there when Space was pressed before, and not when it was pressed twice', () => {
    const { film, playback, show } = started()
    playback.key({ key: ' ', shiftKey: false })
    show()
    expect(film.paused).toBe(false)
    const other = started()
    other.playback.toggle()
    other.playback.toggle()
    other.show()
    expect(other.film.paused).toBe(true)
  })

  it('goes round in a range, from its last frame to its first', () => {
    const { film, playback, pass, show } = started()
    show()
    playback.seek(20)
    playback.loop({ from: 10, to: 25 })
    playback.toggle()
    pass(0.16)
    expect(playback.shown().frame).toBe(24)
    pass(0.04)
    expect(playback.shown().frame).toBe(10)
    expect(film.paused).toBe(false)
  })

  it('counts what was watched, and not what was jumped over', () => {
    const { playback, pass, show } = started(10_000)
    let watched = 0
    playback.tellWatched((seconds) => (watched += seconds))
    show()
    playback.toggle()
    pass(0.5)
    pass(30)
    pass(0.25)
    expect(watched).toBeCloseTo(0.75, 9)
  })

  it('keeps its speed and its place when the element is another', () => {
    const { playback, show, film } = started()
    playback.faster(1)
    playback.seek(40)
    show()
    expect([film.playbackRate, film.currentTime]).toEqual([1.5, 40.5 / 25])
    for (let turn = 0; turn < 9; turn += 1) playback.faster(-1)
    expect(film.playbackRate).toBe(0.25)
  })

  describe('in several files', () => {
    /** The element of the file that is shown now, as the page would bring it. */
    const next = (playback: Playback) => {
      const film = new Film()
      playback.setFilm(null)
      playback.setFilm(film)
      return film
    }

    it('goes on in the next file where one ends, and begins anew from its last frame', () => {
      const { film, playback, pass, show } = started([100, 50])
      show()
      playback.toggle()
      pass(3.98)
      expect(playback.shown()).toMatchObject({ frame: 99, file: 0, playing: true })
      film.pause()
      film.dispatchEvent(new Event('ended'))
      expect(playback.shown()).toMatchObject({ frame: 100, file: 1 })
      const second = next(playback)
      expect([second.paused, second.currentTime]).toEqual([false, 0])
      second.currentTime = 1.98
      playback.step(0)
      playback.seek(149)
      playback.toggle()
      expect(playback.shown()).toMatchObject({ frame: 0, file: 0 })
      expect(next(playback).paused).toBe(false)
    })

    it('is stepped and sought across the seam, on the clock of each file, without beginning to play', () => {
      const { playback, show } = started([100, 50])
      show()
      playback.seek(99)
      playback.step(1)
      expect(playback.shown()).toMatchObject({ frame: 100, file: 1 })
      const second = next(playback)
      expect(second.paused).toBe(true)
      playback.seek(110)
      expect(second.currentTime).toBe(10.5 / 25)
      playback.seek(20)
      expect(playback.shown()).toMatchObject({ frame: 20, file: 0 })
      expect(next(playback).currentTime).toBe(20.5 / 25)
    })

    it('goes round in a range over the seam', () => {
      const { film, playback, pass, show } = started([100, 50])
      show()
      playback.loop({ from: 90, to: 110 })
      playback.seek(95)
      playback.toggle()
      pass(0.18)
      film.pause()
      film.dispatchEvent(new Event('ended'))
      const second = next(playback)
      expect(second.paused).toBe(false)
      second.currentTime = 0.4
      pass(0)
      expect(playback.shown()).toMatchObject({ frame: 90, file: 0 })
      const first = next(playback)
      expect([first.paused, first.currentTime]).toEqual([false, 90.5 / 25])
    })
  })
})
