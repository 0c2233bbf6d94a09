import { expect, it } from 'vitest'
import { EMPTY_MODE, modeTyped, typedOf, type TypedMode } from './modeTyped'

const coded: TypedMode = {
  ...EMPTY_MODE,
  name: ' 4K 25 ',
  proxy: '9 Mb/s',
  proxyFrame: '1280×720',
  measured: '96.5 Mb/s',
}
const raw: TypedMode = { ...EMPTY_MODE, name: 'Raw', kind: 'raw', codec: 'CinemaDNG', header: '4 KB' }
const sound: TypedMode = { ...EMPTY_MODE, name: 'Sound', kind: 'sound', sound: '2304 kb/s' }

it('reads what was typed, and writes it into the fields again without a loss', () => {
  expect(modeTyped(coded)).toMatchObject({
    name: '4K 25',
    picture: {
      widthPx: 3840,
      heightPx: 2160,
      rate: '25/1',
      bitsPerSecond: 100e6,
      rawBitsPerSample: 0,
      rawHeaderBytes: 0,
    },
    audioBitsPerSecond: 256_000,
    proxyBitsPerSecond: 9e6,
    proxyFrame: { widthPx: 1280, heightPx: 720 },
    measuredBitsPerSecond: 96.5e6,
  })
  expect(modeTyped(raw)?.picture).toMatchObject({ bitsPerSecond: 0, rawBitsPerSample: 12, rawHeaderBytes: 4000 })
  expect(modeTyped(sound)).toMatchObject({ picture: null, audioBitsPerSecond: 2_304_000, measuredBitsPerSecond: null })
  for (const typed of [coded, raw, sound]) {
    const mode = modeTyped(typed)
    expect(mode && modeTyped(typedOf(mode))).toEqual(mode)
    expect(mode).toBeDefined()
  }
})

it('makes no mode of a field that cannot be read, and minds only the fields of its kind', () => {
  const spoilt = (typed: TypedMode) =>
    (Object.keys(typed) as (keyof TypedMode)[])
      .filter((name) => name !== 'kind' && name !== 'chroma')
      .filter((name) => modeTyped({ ...typed, [name]: name === 'name' || name === 'codec' ? ' ' : 'x' }) === undefined)
  const always = ['name', 'sound', 'proxy', 'proxyFrame', 'measured']
  expect(spoilt(coded).sort()).toEqual([...always, 'frame', 'rate', 'codec', 'depth', 'video'].sort())
  expect(spoilt(raw).sort()).toEqual([...always, 'frame', 'rate', 'codec', 'depth', 'sample', 'header'].sort())
  expect(spoilt(sound).sort()).toEqual([...always].sort())
})

it('takes bits of a sample and of a raw word within their bounds', () => {
  for (const [depth, fits] of [
    ['0', false],
    ['1', true],
    ['32', true],
    ['33', false],
  ] as const)
    expect(modeTyped({ ...coded, depth }) !== undefined, depth).toBe(fits)
  for (const [sample, fits] of [
    ['0', false],
    ['1', true],
    ['64', true],
    ['65', false],
  ] as const)
    expect(modeTyped({ ...raw, sample }) !== undefined, sample).toBe(fits)
})
