import { describe, expect, it } from 'vitest'
import { checksText, decodedChecks, fileCheck, remarked } from './check'
import { codecName } from './codecName'
import { colourName, colourTags } from './colour'
import { isContainerHead } from './containerHead'
import { FRAME_ENDINGS, isMediaName, saysNothing, STILL_ENDINGS } from './mediaName'
import { nothingIn } from './nothingIn'
import { isSameOrientation, isUpright, orientationOf, orientationText } from './orientation'
import { testFacts, testPicture, testSound } from './testFacts'
import { isToolLine, reasonSentence, toolLine, toolReason } from './toolReason'

describe('names', () => {
  it('of codecs are those of their standards, else the one the file gives', () => {
    expect(['h264', 'hevc', 'prores', 'aac'].map(codecName)).toEqual(['H.264', 'H.265', 'RDD 36', 'AAC'])
    expect(['pcm_s24le', 'pcm_alaw', 'pcm_odd', 'anything'].map(codecName)).toEqual([
      'PCM 24 bit',
      'G.711 A-law',
      'PCM',
      'anything',
    ])
  })

  it('of colours are those of ITU-T H.273, once where all three are alike', () => {
    expect([undefined, 'smpte2084', 'odd'].map(colourName)).toEqual([undefined, 'PQ (BT.2100)', 'odd'])
    expect(colourTags(testPicture())).toBe('BT.709')
    const silent = { matrix: undefined, transfer: undefined, primaries: undefined }
    expect(colourTags(testPicture(silent))).toBe('not stated')
    expect(colourTags(testPicture({ primaries: 'bt2020' }))).toBe('matrix BT.709, transfer BT.709, primaries BT.2020')
    expect(colourTags(testPicture({ matrix: undefined }))).toBe('matrix not stated, transfer BT.709, primaries BT.709')
  })

  it('of files tell clips, frames, stills and lists apart by their endings', () => {
    const clips = ['A.MP4', 'b.mxf', 'c.wav', 'd.e.m2ts', 'e.opus']
    const others = ['A.XML', 'b.jpg', 'c.dng', 'd.md5', 'e', 'f.bin', '.mp4x']
    expect(clips.filter((name) => !isMediaName(name))).toEqual([])
    expect(others.filter(isMediaName)).toEqual([])
    expect(['a', 'b.bin', 'c.000', ...clips, ...others].filter(saysNothing)).toEqual([
      ...['a', 'b.bin', 'c.000', 'e', 'f.bin', '.mp4x'],
    ])
    expect([FRAME_ENDINGS, STILL_ENDINGS].map((endings) => endings.has('dpx'))).toEqual([true, false])
    expect([FRAME_ENDINGS, STILL_ENDINGS].map((endings) => endings.has('png'))).toEqual([false, true])
  })
})

describe('what checks come to', () => {
  const [good, bad] = [fileCheck('Codec', true, 'H.264', 'H.264'), fileCheck('Frame', false, '1×1', '2×2')]

  it('counts what fails first, then what is doubted', () => {
    expect(checksText([good, bad])).toBe('1 of 2 checks fail')
    expect(checksText([good, remarked(good, 'doubt')])).toBe('fails no check, 1 doubt')
    expect(checksText([remarked(good, 'doubt'), remarked(good, 'doubt')])).toBe('fails no check, 2 doubts')
    expect(checksText([good, remarked(good, 'note')])).toBe('passes all 2 checks')
    expect(remarked(bad, 'doubt')).toEqual(bad)
  })

  it('asks of a decoded file as many frames as it lists and no complaint', () => {
    const passed = (frames: number, errors: number) => decodedChecks(100, { frames, errors }).map(({ pass }) => pass)
    expect(passed(100, 0)).toEqual([true, true])
    expect(passed(99, 0)).toEqual([false, true])
    expect(passed(101, 1)).toEqual([false, false])
    expect(decodedChecks(100, { frames: 99, errors: 1 }).map(({ wanted, found }) => [wanted, found])).toEqual([
      ['100', '99'],
      ['no errors', '1 error'],
    ])
  })
})

describe('a file without a clip in it', () => {
  it('is told by what it has neither of, unless not all of it was read', () => {
    const empty = { video: testPicture({ frames: 0, seconds: 0 }), audio: undefined }
    expect(nothingIn(testFacts())).toBeUndefined()
    expect(nothingIn(testFacts({ video: undefined, audio: undefined }))).toBe('it holds neither picture nor sound')
    const ended = 'the recording ended before the first one was written'
    expect(nothingIn(testFacts(empty))).toBe(`it holds no frame: ${ended}`)
    expect(nothingIn(testFacts({ ...empty, audio: testSound({ seconds: 0 }) }))).toContain('no frame')
    expect(nothingIn(testFacts({ ...empty, bounds: ['Too large.'] }))).toBeUndefined()
    expect(nothingIn(testFacts({ ...empty, audio: testSound({ seconds: 1 }) }))).toBeUndefined()
    expect(nothingIn(testFacts({ ...empty, video: testPicture({ frames: 0, seconds: 1 }) }))).toBeUndefined()
    expect(nothingIn(testFacts({ ...empty, video: testPicture({ frames: 1, seconds: 0 }) }))).toBeUndefined()
    const silent = testFacts({ video: undefined, audio: testSound({ seconds: 0 }) })
    expect(nothingIn(silent)).toBe('it holds no sound: the recording ended before the first of it was written')
  })
})

describe('how a picture is turned', () => {
  // Source: ISO/IEC 14496-12, 6.2.2, all eight matrices without scaling.
  it.each([
    [[1, 0, 0, 1], 0, false, '0° against the clock'],
    [[0, 1, -1, 0], -90, false, '−90° against the clock'],
    [[-1, 0, 0, -1], 180, false, '180° against the clock'],
    [[0, -1, 1, 0], 90, false, '90° against the clock'],
    [[-1, 0, 0, 1], 0, true, 'mirrored left to right'],
    [[1, 0, 0, -1], 180, true, 'mirrored top to bottom'],
    [[0, 1, 1, 0], 90, true, 'mirrored left to right, then 90° against the clock'],
    [[0, -1, -1, 0], -90, true, 'mirrored left to right, then −90° against the clock'],
  ] as const)('by %j', (matrix, rotationDegrees, mirrored, text) => {
    const found = orientationOf(matrix)
    expect(found).toEqual({ rotationDegrees, mirrored })
    expect(orientationText(found)).toBe(text)
    expect(isUpright(found)).toBe(rotationDegrees === 0 && !mirrored)
    expect(isSameOrientation(found, { rotationDegrees, mirrored })).toBe(true)
    expect(isSameOrientation(found, { rotationDegrees, mirrored: !mirrored })).toBe(false)
    expect(isSameOrientation(found, { rotationDegrees: rotationDegrees + 90, mirrored })).toBe(false)
  })
})

describe('what a program said', () => {
  const reason = (text: string) => toolReason('ffprobe', text).reason

  it('is put by the family that explains most, whatever order it was said in', () => {
    expect(reason('Invalid data found when processing input\n[mov @ 0x5] moov atom not found')).toContain('index')
    expect(reason('Input/output error\nNo space left on device')).toBe('the drive is full')
    expect(reason("Protocol 'http' not on whitelist")).toBe('it names other files, and was not opened')
    expect(reason('Format hls is not in the whitelist')).toContain('not opened here')
    expect(reason('x265 patchwelcome')).toContain('nothing here knows')
  })

  it('is quoted once a line, without who says it and what only ends, at most twelve', () => {
    const text =
      '[a @ 0x1] [b] Odd.\n  Last message repeated 12 times\n/dev/fd/3: Odd.\nConversion failed!\n\n pipe:0: Strange \n'
    expect(toolReason('ffmpeg', text)).toEqual({ reason: 'Odd', lines: ['Odd.', 'Strange'] })
    const many = Array.from({ length: 20 }, (_, at) => `line ${at}`).join('\n')
    expect(toolReason('ffmpeg', many).lines).toHaveLength(12)
    expect(reason('Exiting normally, received signal 15.')).toBe('the program ffprobe ended and gave no reason')
    expect(reason('Nothing was written into output file')).toContain('gave no reason')
    expect(reason('It said: Conversion failed! twice')).toContain('It said')
  })

  it('is a sentence of its own, or a line with whose it is', () => {
    expect(reasonSentence('the drive is full')).toBe('The drive is full.')
    expect([toolLine('ffmpeg', 'Odd.'), 'The card is gone.', 'it said ffmpeg: odd'].map(isToolLine)).toEqual([
      ...[true, false, false],
    ])
  })
})

describe('the first bytes of a file', () => {
  const head = (text: string, at = 0) =>
    Buffer.concat([Buffer.alloc(at), Buffer.from(text, 'latin1'), Buffer.alloc(64)])
  const film = (...brands: string[]) => {
    const box = Buffer.from(`\0\0\0\0ftyp${brands[0]}\0\0\0\0${brands.slice(1).join('')}`, 'latin1')
    box.writeUInt32BE(box.length)
    return Buffer.concat([box, Buffer.from('mp42....', 'latin1'), Buffer.alloc(32)])
  }
  const grid = (packet: number, first: number, count: number) => {
    const bytes = Buffer.alloc(first + packet * (count - 1) + 1)
    for (let turn = 0; turn < count; turn += 1) bytes[first + turn * packet] = 0x47
    return bytes
  }

  // Sources: as in containerHead.ts; each is the shortest head that its standard allows.
  it.each([
    ['boxes', head('moov', 4), true],
    ['boxes of media', head('mdat', 4), true],
    ['other boxes', head('meta', 4), false],
    ['sound in RIFF', head('RIFF\0\0\0\0WAVE'), true],
    ['film in RIFF', head('RIFF\0\0\0\0AVI '), true],
    ['large sound', head('RF64\0\0\0\0WAVE'), true],
    ['a still in RIFF', head('RIFF\0\0\0\0WEBP'), false],
    ['sound in AIFF', head('FORM\0\0\0\0AIFF'), true],
    ['packed sound in AIFF', head('FORM\0\0\0\0AIFC'), true],
    ['a picture in IFF', head('FORM\0\0\0\0ILBM'), false],
    ['sound in CAF', head('caff'), true],
    ['Ogg', head('OggS'), true],
    ['FLAC', head('fLaC'), true],
    ['the film of a page', head('FLV'), true],
    ['EBML', head('\x1a\x45\xdf\xa3'), true],
    ['a partition pack', head('\x06\x0e\x2b\x34\x02\x05\x01\x01'), true],
    ['another key', head('\x06\x0e\x2b\x34\x02\x05\x01\x02'), false],
    ['a programme stream', head('\0\0\x01\xba'), true],
    ['another start code', head('\0\0\x01\xb3'), false],
    ['a film by its own brand', film('isom'), true],
    ['a film by a brand that it also keeps to', film('abcd', 'mp42'), true],
    ['a still', film('heic', 'mif1'), false],
    ['a still that keeps to a film too', film('avif', 'mp41'), false],
    ['brands that nobody knows', film('abcd', 'efgh'), false],
    ['five packets', grid(188, 0, 5), true],
    ['five packets with their times', grid(192, 4, 5), true],
    ['five packets with their corrections', grid(204, 0, 5), true],
    ['four packets', grid(188, 0, 4), false],
    ['too short for any', head('moov', 4).subarray(0, 15), false],
    ['just long enough', head('moov', 4).subarray(0, 16), true],
  ])('tell a film or sound from others: %s', (_, bytes, wanted) => {
    expect(isContainerHead(bytes)).toBe(wanted)
  })
})
