import { describe, expect, it } from 'vitest'
import { COMPARED_HZ, evenPackets, gapsOf, SoundComparison, strangeGaps } from './compareSound'

const SECONDS = 4

/** Noise of a fixed seed, by a congruential generator (Numerical Recipes: 1 664 525 and 1 013 904 223; from memory). */
function noise(loud: number, samples = SECONDS * COMPARED_HZ): Int16Array {
  let state = 7
  return Int16Array.from({ length: samples }, () => {
    state = (state * 1_664_525 + 1_013_904_223) % 2 ** 32
    return Math.round((state / 2 ** 31 - 1) * loud)
  })
}

const later = (sound: Int16Array, samples: number) => sound.map((_, at) => sound[at - samples] ?? 0)

function compared(original: Int16Array, made: Int16Array, channels = 1) {
  const comparison = new SoundComparison(channels)
  const window = COMPARED_HZ * channels
  for (let at = 0; at < original.length; at += window)
    comparison.add(original.subarray(at, at + window), made.subarray(at, at + window))
  return comparison.result(0)
}

describe('decoded sound', () => {
  const sound = noise(8000)

  it('is alike up to 2 ms off, and not beyond', () => {
    expect(compared(sound, sound)).toEqual({ seconds: SECONDS, unlike: 0, firstUnlike: null, steps: 0 })
    for (const samples of [-16, -3, 16]) expect(compared(sound, later(sound, samples)).unlike).toBe(0)
    for (const samples of [-20, 20, 150, 4000]) expect(compared(sound, later(sound, samples)).unlike).toBe(SECONDS)
  })

  it('names the first second in which pieces lie wrong', () => {
    const made = sound.slice()
    made.set(sound.subarray(2 * COMPARED_HZ, 2.5 * COMPARED_HZ), 2.5 * COMPARED_HZ)
    expect(compared(sound, made)).toMatchObject({ unlike: 1, firstUnlike: 2 })
  })

  it('stays silent where the original is silent, and as loud where it is loud', () => {
    const silence = new Int16Array(sound.length)
    expect(compared(silence, noise(8)).unlike).toBe(0)
    expect(compared(silence, noise(800)).unlike).toBe(SECONDS)
    expect(compared(sound, silence).unlike).toBe(SECONDS)
    expect(
      compared(
        sound,
        sound.map((value) => value / 2),
      ).unlike,
    ).toBe(SECONDS)
    expect(
      compared(
        sound,
        sound.map((value) => value * 0.8),
      ).unlike,
    ).toBe(0)
  })

  it('begins and ends where it did, also where a tone lies right at many places', () => {
    const tone = Int16Array.from(
      { length: 8 * 1000 * SECONDS },
      (_, at) => 6000 * Math.sin((2 * Math.PI * 400 * at) / 8000),
    )
    const after = (samples: number) => tone.map((value, at) => (at < samples ? 0 : value))
    // 200 ms are 80 whole periods: where it sounds, it sounds the same.
    expect(compared(after(800), after(2400))).toMatchObject({ unlike: 1, firstUnlike: 0 })
    expect(compared(after(2400), after(800))).toMatchObject({ unlike: 1, firstUnlike: 0 })
    expect(compared(after(1600), after(1600)).unlike).toBe(0)
  })

  it('is told channel by channel', () => {
    const other = later(noise(8000), 977)
    const stereo = (left: Int16Array, right: Int16Array) =>
      Int16Array.from({ length: left.length * 2 }, (_, at) => (at % 2 === 0 ? left : right)[at >> 1] ?? 0)
    expect(compared(stereo(sound, other), stereo(sound, other), 2).unlike).toBe(0)
    expect(compared(stereo(sound, other), stereo(other, sound), 2).unlike).toBe(SECONDS)
  })

  it('is unlike below a correlation of 0.7, and not compared below −60 dB', () => {
    const other = later(noise(8000), 977)
    const mixed = (share: number) => compared(sound, sound.map((value, at) => share * value + Math.sqrt(1 - share ** 2) * (other[at] ?? 0))).unlike // prettier-ignore
    // The other begins with silence, so that its first second is more alike.
    expect([0.715, 0.685].map(mixed)).toEqual([0, SECONDS - 1])
    // Loudness of even noise is its largest value by the root of 3; −60 dB of full scale is 32.8.
    const loud = (most: number) => noise(most * Math.sqrt(3))
    const quiet = (most: number) => compared(loud(most), later(loud(most), 977)).unlike
    expect([32.2, 33.6].map((most) => quiet(most) > 0)).toEqual([false, true])
  })

  it('does not count what is shorter than a quarter of a second', () => {
    const comparison = new SoundComparison(1)
    comparison.add(noise(8000, 1000), new Int16Array(1000))
    expect(comparison.result(0)).toEqual({ seconds: 0.125, unlike: 0, firstUnlike: null, steps: 0 })
  })
})

describe('packets of sound', () => {
  const packets = (...starts: number[]) => starts.map((at) => ({ at, seconds: 0.02 }))

  it('have gaps where they do not follow each other, or overlap', () => {
    expect(gapsOf(packets(0, 0.02, 0.0405, 0.06))).toEqual([])
    const [gap, overlap] = gapsOf(packets(0, 0.02, 0.54, 0.55))
    expect(gap?.at).toBeCloseTo(0.04)
    expect(gap?.seconds).toBeCloseTo(0.5)
    expect(overlap?.seconds).toBeCloseTo(-0.01)
  })

  it('are as long as most where all hold as many samples, whatever a container lists', () => {
    const listed = [0, 0.02, 0.04, 0.54, 0.56].map((at, turn) => ({ at, seconds: turn === 2 ? 0.5 : 0.02 }))
    expect(gapsOf(listed)).toEqual([])
    expect(gapsOf(evenPackets(listed))).toHaveLength(1)
  })

  it('may have the gaps that the original has, and no others', () => {
    const original = [{ at: 3, seconds: 0.5 }]
    expect(strangeGaps(original, [{ at: 3.02, seconds: 0.49 }])).toBe(0)
    expect(strangeGaps(original, [{ at: 4, seconds: 0.5 }])).toBe(1)
    expect(strangeGaps(original, [{ at: 3, seconds: 0.2 }])).toBe(1)
    expect(strangeGaps([], [{ at: 3, seconds: 0.02 }])).toBe(1)
    // Source: ISO/IEC 14496-3, 1 024 samples at 32 kHz: 32 ms.
    const off = (ms: number) => strangeGaps(original, [{ at: 3 + ms / 1000, seconds: 0.5 - ms / 1000 }])
    expect([31.8, 32.5].map(off)).toEqual([0, 1])
  })
})
