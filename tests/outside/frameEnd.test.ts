import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readdirSync, readFileSync, statSync, truncateSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { frameRuns } from '../../core/cards/files/frameRuns'
import { isFrameCut } from '../../core/media/frameEnd'
import { sourceOf } from '../../core/media/testBytes'
import { FolderMedium } from '../../server/engine/medium/folder'
import { probeFile } from '../../server/engine/probe/probe'
import { TaskControl } from '../../server/jobs/control'
import { pictureOf } from '../../server/jobs/cards/steps/scanClip'
import { scanRun } from '../../server/jobs/cards/steps/scanRun'

const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-frames-'))
const ffmpeg = (...args: string[]) => execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { cwd: folder })
const PICTURE = ['-f', 'lavfi', '-i', 'testsrc2=s=320x180:r=25:d=1']

describe('a frame whose end is missing', () => {
  // Source: pictures made by Debian's ffmpeg, cut at every place.
  it.each([
    ['plain.tif', ''],
    ['packed.tif', '-compression_algo lzw'],
    ['zipped.tif', '-compression_algo deflate'],
    ['still.png', ''],
    ['still.jpg', ''],
    ['film.jp2', ''],
    ['film.j2k', '-f image2 -c:v jpeg2000 -format j2k'],
    ['scan.dpx', ''],
    ['light.exr', '-pix_fmt gbrpf32le -compression zip16'],
    ['light-plain.exr', '-pix_fmt gbrpf32le'],
    ['still.bmp', ''],
    ['still.webp', ''],
  ])('is found in %s %s', async (name, options) => {
    ffmpeg(...PICTURE, '-frames:v', '1', ...options.split(' ').filter(Boolean), name)
    const whole = readFileSync(join(folder, name))
    expect(await isFrameCut(sourceOf(whole))).toBe(false)
    expect(await isFrameCut(sourceOf(Buffer.concat([whole, Buffer.alloc(300, 0x20)])))).toBe(false)
    for (const share of [0.05, 0.3, 0.5, 0.75, 0.9, 0.99])
      expect(await isFrameCut(sourceOf(whole.subarray(0, Math.floor(whole.length * share)))), `${share}`).toBe(true)
    // The last four bytes of these say where the next directory stands: nowhere.
    expect(await isFrameCut(sourceOf(whole.subarray(0, name.endsWith('.tif') ? -5 : -1)))).toBe(true)
  })

  it('is counted among the frames of a run, whose sizes tell nothing', async () => {
    mkdirSync(join(folder, 'run'))
    ffmpeg(...PICTURE, '-compression_algo', 'lzw', 'run/pole_%04d.tif')
    const path = (name: string) => join(folder, 'run', name)
    for (const [name, share] of [
      ['pole_0007.tif', 0.8],
      ['pole_0019.tif', 0.999],
    ] as const)
      truncateSync(path(name), Math.floor(statSync(path(name)).size * share))
    const medium = new FolderMedium(folder)
    const tree = (await medium.tree(Buffer.from('run'))) ?? []
    const [run] = frameRuns(
      readdirSync(join(folder, 'run')).flatMap((name) => {
        const entry = tree.find((one) => one.path.toString().endsWith(name))
        return entry ? [{ path: `run/${name}`, sizeBytes: statSync(path(name)).size, modifiedMs: 0, entry: { ...entry, path: Buffer.from(`run/${name}`) } }] : [] // prettier-ignore
      }),
    )
    if (!run) throw new Error('no run')
    expect(run.short).toBe(0)
    const { probe } = await scanRun(medium, run, undefined, new TaskControl())
    expect(probe?.sequence).toMatchObject({ first: 1, last: 25, missing: [], short: 2 })
  })
})

describe('a film whose frames stand alone and are all damaged', () => {
  // What these coders keep of a frame, its head, is left: it is opened, and its pictures are noise.
  it.each([
    ['mjpeg', 'mov', '-q:v 3 -pix_fmt yuvj422p'],
    ['prores_ks', 'mov', ''],
    ['dnxhd', 'mov', '-b:v 60M -pix_fmt yuv422p -s 1280x720'],
    ['libx264', 'mp4', '-g 1 -pix_fmt yuv420p'],
    ['jpeg2000', 'mov', ''],
    ['png', 'mov', ''],
  ])('has no picture: %s', async (coder, container, options) => {
    const [whole, damaged] = [`whole-${coder}.${container}`, `damaged-${coder}.${container}`]
    ffmpeg(...PICTURE, '-t', '0.4', '-c:v', coder, ...options.split(' ').filter(Boolean), whole)
    const bytes = readFileSync(join(folder, whole))
    const listed = execFileSync('ffprobe', ['-v', 'quiet', '-show_entries', 'packet=pos,size', '-of', 'csv=p=0', whole], { cwd: folder }) // prettier-ignore
    for (const line of listed.toString().trim().split('\n')) {
      const [size = 0, position = 0] = line.split(',').map(Number)
      for (let at = position + Math.min(700, size / 2); at < position + size; at += 1) bytes[Math.floor(at)] = (at * 7919 + (at % 251) * 31) & 0xff // prettier-ignore
    }
    writeFileSync(join(folder, damaged), bytes)
    const pictured = async (name: string) => {
      const path = Buffer.from(join(folder, name))
      const { video } = await probeFile(path)
      if (!video) throw new Error('no picture')
      return (await pictureOf(path, video, new TaskControl()))?.subarray(0, 2).toString('hex')
    }
    expect(await pictured(whole)).toBe('ffd8')
    expect(await pictured(damaged)).toBeUndefined()
  })
})
