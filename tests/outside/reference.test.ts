import { execFileSync } from 'node:child_process'
import { createHash } from 'node:crypto'
import { mkdirSync, mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { formatChecksumList, parseChecksumList } from '../../core/copies/lists/format'
import { neededLevel } from '../../core/exports/level'
import { RunningHash } from '../../server/engine/copy/hash'
import { probeFile } from '../../server/engine/probe/probe'
import { writeBag } from '../../server/engine/bag/bag'
import { readBag } from '../../server/engine/bag/readBag'
import { FolderMedium } from '../../server/engine/medium/folder'
import { isLong } from '../long'
import { args } from '../args'

const scratch = () => mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-outside-'))

describe('levels of H.264', () => {
  /** At a limit of each level and just above it: width, height, frames a second. */
  const EDGES = [
    [128, 96, 30],
    [176, 144, 15],
    [176, 144, 16],
    [352, 288, 15],
    [352, 288, 30],
    [352, 288, 31],
    [352, 576, 25],
    [720, 576, 12],
    [720, 576, 25],
    [1280, 720, 30],
    [1280, 720, 60],
    [1280, 1024, 42],
    [1920, 1080, 30],
    [1920, 1080, 60],
    [1920, 1088, 64],
    [1080, 1920, 25],
    [2560, 1920, 30],
    [3840, 2160, 30],
    [3840, 2160, 60],
    [4096, 2304, 56],
    [4096, 2304, 57],
    [7680, 4320, 30],
    [8192, 4320, 60],
    [8192, 4352, 120],
    [2704, 160, 25],
  ] as const

  it('are those that a reference encoder writes into its streams, at the edges of every row', () => {
    // Source: libx264 in Debian's ffmpeg chooses the lowest level of ITU-T H.264 table A-1 by itself; one reference
    // frame.
    const path = join(scratch(), 'edge.mp4')
    // The largest frames take seconds each.
    const edges = EDGES.filter(([widthPx, heightPx]) => isLong || widthPx * heightPx < 9_000_000)
    for (const [widthPx, heightPx, framesPerSecond] of edges) {
      const source = `color=gray:s=${widthPx}x${heightPx}:r=${framesPerSecond}`
      const coding = [...args('-frames:v 1 -c:v libx264 -preset ultrafast -profile:v high -pix_fmt yuv420p')]
      execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', source, ...coding, path])
      const level = Number(
        execFileSync('ffprobe', ['-v', 'error', '-show_entries', 'stream=level', '-of', 'csv=p=0', path], {
          encoding: 'utf8',
        }),
      )
      const name = `${widthPx}×${heightPx} at ${framesPerSecond}`
      expect(neededLevel({ widthPx, heightPx, framesPerSecond, bitsPerSecond: 10_000 }), name).toBe(level)
    }
  })
})

describe('hashes and checksum lists', () => {
  it('are those of the reference implementation, however the bytes are cut', () => {
    // Source: xxHash specification, XXH64 of nothing with seed 0; xxhsum of Debian's xxhash for the rest.
    expect(new RunningHash().digest()).toBe('ef46db3751d8e999')
    const path = join(scratch(), 'bytes')
    for (const size of [1, 31, 32, 33, 4096, 100_001]) {
      const bytes = Buffer.from(Array.from({ length: size }, (_, at) => (at * 7919) % 256))
      writeFileSync(path, bytes)
      const hash = new RunningHash()
      for (let at = 0; at < size; at += 13) hash.update(bytes.subarray(at, at + 13))
      expect(hash.digest()).toBe(execFileSync('xxhsum', ['-H64', path], { encoding: 'utf8' }).slice(0, 16))
    }
  })

  it('are accepted by sha256sum, odd names too, and read what sha256sum writes', () => {
    // Source: sha256sum of Debian's coreutils.
    const folder = scratch()
    const names = ['plain.mp4', 'two\nlines', 'back\\slash', 'caf\xe9', '  leading', 'tab\there']
    const sums = names.map((path) => {
      writeFileSync(Buffer.from(`${folder}/${path}`, 'latin1'), path)
      return { path, hash: createHash('sha256').update(path).digest('hex') }
    })
    writeFileSync(join(folder, 'list'), Buffer.from(formatChecksumList(sums), 'latin1'))
    execFileSync('sha256sum', ['--strict', '--quiet', '-c', 'list'], { cwd: folder })
    const theirs = execFileSync('sh', ['-c', 'find . -type f ! -name list -print0 | xargs -0 sha256sum'], {
      cwd: folder,
      encoding: 'latin1',
    })
    expect(
      parseChecksumList(theirs)
        .map((sum) => sum.path.slice(2))
        .sort(),
    ).toEqual([...names].sort())
  })
})

describe('a bag', () => {
  it('is whole by sha256sum and by RFC 8493, and a name that is taken is left alone', async () => {
    const root = scratch()
    for (const folder of ['from', 'to']) mkdirSync(join(root, folder))
    writeFileSync(join(root, 'from/film.mp4'), Buffer.alloc(9_000_001, 'film'))
    const medium = new FolderMedium(join(root, 'to'))
    const order = {
      target: medium,
      folder: Buffer.from('Bag'),
      parts: Buffer.from('.parts'),
      gate: () => Promise.resolve(),
      onBytes: () => undefined,
      payload: [
        {
          medium: new FolderMedium(join(root, 'from')),
          path: Buffer.from('film.mp4'),
          name: '100% film.mp4',
          modifiedMs: 1_700_000_000_000,
        },
      ],
      notes: [],
      info: [['External-Identifier', 'film 1'] as const],
    }
    const written = await writeBag(order)
    expect(written).toMatchObject({ fromMedium: true, files: [{ path: 'data/100% film.mp4', sizeBytes: 9_000_001 }] })
    const bag = join(root, 'to/Bag')
    // Source: RFC 8493 sections 2.1.3 (percent-encoding in manifests) and 2.2.2 (Payload-Oxum); sha256sum on the file
    // itself.
    const sum = execFileSync('sha256sum', ['data/100% film.mp4'], { cwd: bag, encoding: 'utf8' }).slice(0, 64)
    expect(readFileSync(join(bag, 'manifest-sha256.txt'), 'utf8')).toBe(`${sum}  data/100%25 film.mp4\n`)
    expect(readFileSync(join(bag, 'bag-info.txt'), 'utf8')).toBe(
      'External-Identifier: film 1\nPayload-Oxum: 9000001.1\n',
    )
    execFileSync('sha256sum', ['--strict', '--quiet', '-c', 'tagmanifest-sha256.txt'], { cwd: bag })
    await expect(writeBag(order)).rejects.toThrow('Something has that name already')
    const found = await readBag(medium, Buffer.from('Bag'), 'film 1', order.gate)
    expect(found?.files).toEqual(written.files)
    expect(await readBag(medium, Buffer.from('Bag'), 'film 2', order.gate)).toBeUndefined()
    writeFileSync(join(bag, 'data/100% film.mp4'), 'damaged')
    expect(await readBag(medium, Buffer.from('Bag'), 'film 1', order.gate)).toBeUndefined()
    await expect(medium.entry(Buffer.from('.parts'))).resolves.toBeUndefined()
  })
})

describe('reading media', () => {
  it('tells rotation, exact rate, sound and where the index stands', async () => {
    // Source: files made by Debian's ffmpeg with known properties.
    const folder = scratch()
    const make = (name: string, ...options: string[]) => {
      execFileSync('ffmpeg', [
        ...args(
          '-v error -f lavfi -i testsrc2=s=320x180:r=24000/1001:d=1 -f lavfi -i sine=d=1 -c:v libx264 -preset ultrafast -pix_fmt yuv420p -c:a aac -ac 1',
        ),
        ...options,
        join(folder, name),
      ])
      return Buffer.from(join(folder, name))
    }
    const plain = await probeFile(make('late.mp4'))
    expect(plain).toMatchObject({
      indexFirst: false,
      audio: { channels: 1 },
      video: { widthPx: 320, heightPx: 180, rate: { num: 24000, den: 1001 }, rotationDegrees: 0 },
    })
    expect((await probeFile(make('first.mp4', '-movflags', '+faststart'))).indexFirst).toBe(true)
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-i',
      join(folder, 'late.mp4'),
      ...args('-c copy -metadata:s:v rotate=90'),
      join(folder, 'turned.mp4'),
    ])
    expect((await probeFile(Buffer.from(join(folder, 'turned.mp4')))).video).toMatchObject({
      widthPx: 180,
      heightPx: 320,
    })
    writeFileSync(join(folder, 'none.mp4'), 'not a film')
    await expect(probeFile(Buffer.from(join(folder, 'none.mp4')))).rejects.toThrow(
      'What is in it is no picture and no sound.',
    )
  })
})
