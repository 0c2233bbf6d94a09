import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { deliveryBitRate, DESTINATIONS, destinationOf, predictedBytes } from './destination'
import { levelAllows, levelText, macroblocks, neededLevel } from './level'
import { cutOf, largestWindow, losslessZoom, reframe, scaleDown, scaleOf, windowFault } from './reframe'
import type { MediaFacts } from '../media/facts'
import { testFacts, testPicture, testSound } from '../media/testFacts'
import { soundPlan } from './sound'
import { frameRate } from '../units/frameRate'
import { usualColours } from './colours'
import { deliveryPlan, USUAL_CHOICE } from './plan'

const uhd = { widthPx: 3840, heightPx: 2160 }
const hd = { widthPx: 1920, heightPx: 1080 }
const tall = { widthPx: 1080, heightPx: 1920 }

describe('reframing', () => {
  it('finds the largest window of another aspect', () => {
    // Common practice, no source; the arithmetic is the check.
    expect(largestWindow(uhd, tall)).toEqual({ widthPx: 1215, heightPx: 2160 })
    expect(largestWindow(hd, tall)).toEqual({ widthPx: 607.5, heightPx: 1080 })
    expect(largestWindow(uhd, { widthPx: 1080, heightPx: 1350 })).toEqual({ widthPx: 1728, heightPx: 2160 })
    expect(largestWindow(uhd, { widthPx: 1080, heightPx: 1080 })).toEqual({ widthPx: 2160, heightPx: 2160 })
    expect(losslessZoom(uhd, hd)).toBe(2)
  })

  it('says when pixels are invented', () => {
    expect(reframe(uhd, tall, 1, { x: 1920, y: 1080 })).toMatchObject({ invented: false })
    expect(reframe(uhd, tall, 1, { x: 1920, y: 1080 }).scale).toBeCloseTo(0.889, 2)
    const fromHd = reframe(hd, tall, 1, { x: 960, y: 540 })
    expect(fromHd.invented).toBe(true)
    expect(fromHd.scale).toBeCloseTo(1.778, 2)
  })

  it('always lands on even pixels inside the picture with a true aspect', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(...DESTINATIONS),
        fc.constantFrom(uhd, hd, { widthPx: 2704, heightPx: 1520 }, tall),
        fc.double({ min: 1, max: 3, noNaN: true }),
        fc.integer({ min: -500, max: 4500 }),
        fc.integer({ min: -500, max: 4500 }),
        (to, source, zoom, x, y) => {
          const { window } = reframe(source, to, zoom, { x, y })
          expect(windowFault(window, source)).toBeUndefined()
          expect(Math.abs(window.widthPx / window.heightPx / (to.widthPx / to.heightPx) - 1)).toBeLessThan(0.002)
        },
      ),
    )
  })

  it('is offered to the very edge, and never beyond it, of pictures with odd sides too', () => {
    const side = fc.integer({ min: 300, max: 2200 })
    fc.assert(
      fc.property(
        fc.constantFrom(...DESTINATIONS),
        fc.record({ widthPx: side, heightPx: side }),
        fc.double({ min: 1, max: 3, noNaN: true }),
        fc.constantFrom(-1, 0, 0.5, 1, 2),
        fc.constantFrom(-1, 0, 0.5, 1, 2),
        (to, source, zoom, across, down) => {
          const { window } = reframe(source, to, zoom, { x: source.widthPx * across, y: source.heightPx * down })
          expect(windowFault(window, source)).toBeUndefined()
          const edge = {
            x: source.widthPx - window.widthPx - window.x,
            y: source.heightPx - window.heightPx - window.y,
          }
          if (across > 1) expect(edge.x).toBeLessThan(2)
          if (down > 1) expect(edge.y).toBeLessThan(2)
          const picture = { displayWidthPx: source.widthPx, displayHeightPx: source.heightPx }
          const cut = cutOf(testPicture({ ...source, ...picture }), window).window
          expect(windowFault(cut, source)).toBeUndefined()
        },
      ),
    )
  })

  it('refuses windows that cannot be cut', () => {
    expect(windowFault({ x: 1, y: 0, widthPx: 100, heightPx: 100 }, uhd)).toContain('even')
    expect(windowFault({ x: 3800, y: 0, widthPx: 100, heightPx: 100 }, uhd)).toContain('beyond')
    expect(windowFault({ x: -2, y: 0, widthPx: 100, heightPx: 100 }, uhd)).toContain('outside')
  })
})

describe('samples and shown pixels', () => {
  const window = { x: 168, y: 0, widthPx: 432, heightPx: 576 }

  it('cuts windows of shown pixels in samples', () => {
    // Source: ITU-R BT.601 at 4:3: 720 samples of 16:15 are shown as 768 pixels.
    const tape = testPicture({
      widthPx: 720,
      heightPx: 576,
      displayWidthPx: 768,
      displayHeightPx: 576,
      sampleAspect: '16:15',
    })
    expect(cutOf(tape, window).window).toEqual({ x: 158, y: 0, widthPx: 406, heightPx: 576 })
    expect(scaleOf(tape, window, { widthPx: 432, heightPx: 576 })).toBeCloseTo(432 / 406, 6)
  })

  it('turns the clean aperture with the picture', () => {
    const clean = { x: 12, y: 4, widthPx: 300, heightPx: 170 }
    const of = (rotationDegrees: number, mirrored = false) => {
      const turned = Math.abs(rotationDegrees) % 180 === 90
      const [widthPx, heightPx] = turned ? [180, 320] : [320, 180]
      const [displayWidthPx, displayHeightPx] = turned ? [170, 300] : [300, 170]
      const film = testPicture({
        widthPx,
        heightPx,
        displayWidthPx,
        displayHeightPx,
        rotationDegrees,
        mirrored,
        cleanAperture: clean,
      })
      return cutOf(film, { x: 0, y: 0, widthPx: 100, heightPx: 100 }).aperture
    }
    expect(of(0)).toEqual(clean)
    expect(of(90)).toEqual({ x: 4, y: 8, widthPx: 170, heightPx: 300 })
    expect(of(-90)).toEqual({ x: 6, y: 12, widthPx: 170, heightPx: 300 })
    expect(of(180)).toEqual({ x: 8, y: 6, widthPx: 300, heightPx: 170 })
    expect(of(0, true)).toEqual({ x: 8, y: 4, widthPx: 300, heightPx: 170 })
    // Mirrored top to bottom.
    expect(of(180, true)).toEqual({ x: 12, y: 6, widthPx: 300, heightPx: 170 })
    expect(of(90, true)).toEqual({ x: 4, y: 12, widthPx: 170, heightPx: 300 })
  })

  it('never promises more than there is', () => {
    // Source: the arithmetic; 112.59 % without loss is 112.5 %, never 113.
    expect(scaleDown(1.1259)).toBe('112.5 %')
    expect(scaleDown(2)).toBe('200.0 %')
    expect(scaleDown(losslessZoom({ widthPx: 1216, heightPx: 2160 }, tall))).toBe('112.5 %')
  })
})

describe('a plan', () => {
  const whole = { x: 0, y: 0, widthPx: 1920, heightPx: 1080 }
  const wide = destinationOf('wide-watch')
  const plan = (change: Parameters<typeof testPicture>[0], choice = USUAL_CHOICE) => {
    const master = testFacts({ video: testPicture({ widthPx: 1920, heightPx: 1080, ...change }) })
    const made = wide && deliveryPlan(master, wide, whole, choice)
    if (!made) throw new Error('no plan')
    return made
  }

  it('says nothing where nothing is changed', () => {
    expect(plan({})).toMatchObject({ says: [], fault: undefined, frames: 100, scale: 1, grid: undefined })
  })

  it('puts odd and variable rates on one that is known, and says what becomes of the frames', () => {
    const odd = plan({ rate: frameRate(26_163, 1000) })
    expect(odd).toMatchObject({ rate: frameRate(25), frames: 96 })
    expect(odd.says[0]).toMatch(/26\.163 frames a second.*put on 25: 0 frames doubled, 4 dropped/)
    const cadence = {
      kind: 'variable',
      average: 26.2,
      offGrid: 0.1,
      measuredFrames: 100,
      grid: { doubled: 14, dropped: 1 },
    } as const
    expect(plan({ rate: frameRate(30), cadence }).says[0]).toBe(
      'Recorded at a variable rate: 26.2 on average. It will be put on 30: 14 frames doubled, 1 dropped.',
    )
  })

  it('takes colours for what is usual where they are not stated, and as chosen', () => {
    // Common practice, no source: BT.709 from 720 lines on, BT.601 below.
    const silent = { matrix: undefined, primaries: undefined, transfer: undefined }
    expect(plan(silent).says).toEqual(['The colours are not stated; treated as BT.709.'])
    expect(usualColours(testPicture({ widthPx: 720, heightPx: 576 }))).toBe('bt601-625')
    expect(usualColours(testPicture({ widthPx: 720, heightPx: 480 }))).toBe('bt601-525')
    expect(usualColours(testPicture({ widthPx: 1080, heightPx: 1920, rotationDegrees: 90 }))).toBe('bt709')
    const chosen = plan(silent, { ...USUAL_CHOICE, colours: 'bt601-625' })
    expect(chosen.colours).toMatchObject({ matrix: 'bt470bg', primaries: 'bt470bg' })
    expect(chosen.says).toContain('Colours are converted to BT.709 in limited range.')
    expect(plan({ range: 'full' }).says).toEqual(['Colours are converted to BT.709 in limited range.'])
    expect(plan({ ...silent, matrix: 'bt470bg' }).colours).toMatchObject({ matrix: 'bt470bg', primaries: 'bt470bg' })
    expect(plan({ transfer: 'arib-std-b67' }).fault).toMatch(/HLG.*tone-mapped/)
  })

  it('says which sound goes out, from facts that came over the wire too', () => {
    const sounds = [
      testSound({ language: 'ger' }),
      testSound({ index: 2, language: 'eng', channels: 1, layout: 'mono' }),
    ]
    const master = JSON.parse(JSON.stringify(testFacts({ sounds, audio: sounds[0] }))) as MediaFacts
    expect(soundPlan(master, null)?.says).toEqual(['Sound 1: stereo, ger goes out, the other is left out.'])
    expect(soundPlan(master, 2)).toMatchObject({
      mix: 'both',
      says: ['Sound 2: mono, eng goes out, the other is left out.', 'The one channel goes to left and right.'],
    })
    expect(soundPlan(testFacts({ audio: undefined, sounds: [] }), null)).toBeUndefined()
  })

  it('deinterlaces to as many frames, or to one a field', () => {
    const woven = { fieldOrder: 'bottom first' } as const
    expect(plan(woven)).toMatchObject({ deinterlace: 'frame', rate: frameRate(25), frames: 100 })
    expect(plan(woven, { ...USUAL_CHOICE, fields: 'field' })).toMatchObject({ rate: frameRate(50), frames: 200 })
    expect(plan({ ...woven, rotationDegrees: 90 }).fault).toMatch(/turned by a quarter/)
  })
})

describe('levels and sizes', () => {
  it('agrees with table A-1 in every row and all three limits', () => {
    // Source: typed from ITU-T H.264 Annex A, table A-1 (from memory of it): MaxMBPS, MaxFS, MaxBR in 1000 bit/s.
    const TABLE = [
      ['1', 1485, 99, 64],
      ['1b', 1485, 99, 128],
      ['1.1', 3000, 396, 192],
      ['1.2', 6000, 396, 384],
      ['1.3', 11880, 396, 768],
      ['2', 11880, 396, 2000],
      ['2.1', 19800, 792, 4000],
      ['2.2', 20250, 1620, 4000],
      ['3', 40500, 1620, 10000],
      ['3.1', 108000, 3600, 14000],
      ['3.2', 216000, 5120, 20000],
      ['4', 245760, 8192, 20000],
      ['4.1', 245760, 8192, 50000],
      ['4.2', 522240, 8704, 50000],
      ['5', 589824, 22080, 135000],
      ['5.1', 983040, 36864, 240000],
      ['5.2', 2073600, 36864, 240000],
      ['6', 4177920, 139264, 240000],
      ['6.1', 8355840, 139264, 480000],
      ['6.2', 16711680, 139264, 800000],
    ] as const
    for (const [name, perSecond, frame, kilobits] of TABLE) {
      const level = name === '1b' ? 9 : Number(name) * 10
      expect(levelText(level)).toBe(name)
      // A picture one macroblock high or nearly square, as the dimension limit allows it.
      const wide = Math.floor(Math.sqrt(frame * 8))
      const stream = { widthPx: 16, heightPx: 16, framesPerSecond: 1, bitsPerSecond: 1 }
      const bits = kilobits * 1250
      expect(levelAllows(level, { ...stream, bitsPerSecond: bits })).toBe(true)
      expect(levelAllows(level, { ...stream, bitsPerSecond: bits + 1 })).toBe(false)
      expect(levelAllows(level, { ...stream, framesPerSecond: perSecond })).toBe(true)
      expect(levelAllows(level, { ...stream, framesPerSecond: perSecond + 1 })).toBe(false)
      expect(levelAllows(level, { ...stream, widthPx: wide * 16 })).toBe(true)
      expect(levelAllows(level, { ...stream, widthPx: (wide + 1) * 16 })).toBe(false)
      expect(levelAllows(level, { ...stream, heightPx: (wide + 1) * 16 })).toBe(false)
      const rows = Math.floor(frame / wide)
      expect(levelAllows(level, { ...stream, widthPx: wide * 16, heightPx: rows * 16 })).toBe(true)
      expect(levelAllows(level, { ...stream, widthPx: wide * 16, heightPx: (rows + 1) * 16 })).toBe(false)
    }
    expect(levelAllows(45, { widthPx: 16, heightPx: 16, framesPerSecond: 1, bitsPerSecond: 1 })).toBeUndefined()
  })

  it('finds the lowest level', () => {
    expect(macroblocks(1920, 1080)).toBe(8160)
    const level = (widthPx: number, heightPx: number, framesPerSecond: number) =>
      neededLevel({ widthPx, heightPx, framesPerSecond, bitsPerSecond: 8e6 })
    expect(level(1920, 1080, 30)).toBe(40)
    expect(level(1920, 1080, 60)).toBe(42)
    expect(level(3840, 2160, 30)).toBe(51)
    expect(level(7680, 4320, 60)).toBe(61)
    expect(level(16_384, 8640, 60)).toBeUndefined()
  })

  it('turns bits per pixel and frame into rates and bytes', () => {
    // Common practice, no source: 8 Mb/s for 1080p30 is 0.129 bits per pixel and frame.
    expect(8e6 / (1920 * 1080 * 30)).toBeCloseTo(0.129, 3)
    const short = destinationOf('tall-short')
    expect(short && deliveryBitRate(short, 25)).toBe(7_776_000)
    expect(predictedBytes(8e6, 0, 60)).toBe(60e6)
  })

  it('offers only frames that 4:2:0 can code', () => {
    for (const to of DESTINATIONS) expect([to.widthPx % 2, to.heightPx % 2]).toEqual([0, 0])
  })
})
