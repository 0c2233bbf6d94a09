import { describe, expect, it } from 'vitest'
import { RunFilm } from './runFilm'

/** A run of 2 s whose server needs so long for each frame. */
function run(drawMs: number) {
  let ms = 0
  const drawn: number[] = []
  const told: string[] = []
  let rate = 0
  const film = new RunFilm(
    2,
    (seconds) => {
      drawn.push(Math.round(seconds * 1000))
      if (!film.paused) ms += drawMs
      return Promise.resolve()
    },
    (perSecond) => (rate = perSecond),
    () => ms,
  )
  for (const name of ['play', 'pause', 'ended']) film.addEventListener(name, () => told.push(name))
  return { film, drawn, told, rate: () => rate, pass: (by: number) => (ms += by) }
}

describe('a run of frames that is played', () => {
  it('takes as long as it lasts, and leaves out what cannot be drawn in time', async () => {
    const { film, drawn, told, rate } = run(125)
    await film.play()
    expect(drawn).toEqual(Array.from({ length: 16 }, (_, at) => at * 125))
    expect(rate()).toBeCloseTo(8, 6)
    expect([told, film.currentTime, film.paused]).toEqual([['play', 'pause', 'ended'], 2, true])
  })

  it('goes on from where it was held or put, at another speed too', async () => {
    const { film, drawn, told } = run(100)
    film.addEventListener('play', () => queueMicrotask(() => film.pause()))
    await film.play()
    expect([told, film.paused]).toEqual([['play', 'pause'], true])
    film.currentTime = 1.5
    expect(drawn.at(-1)).toBe(1500)
    const other = run(100)
    other.film.playbackRate = 2
    other.film.currentTime = 1
    await other.film.play()
    expect(other.drawn).toEqual([1000, 1000, 1200, 1400, 1600, 1800])
  })

  it('tells how many were seen also where one takes longer than the run lasts', async () => {
    const { film, rate } = run(4000)
    await film.play()
    expect(rate()).toBeCloseTo(0.25, 6)
  })

  it('is not held up by a frame that cannot be drawn', async () => {
    let ms = 0
    const film = new RunFilm(
      1,
      () => {
        ms += 400
        return Promise.reject(new Error('gone'))
      },
      () => undefined,
      () => ms,
    )
    await film.play()
    expect(film.currentTime).toBe(1)
  })
})
