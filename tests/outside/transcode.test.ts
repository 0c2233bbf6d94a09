import { execFileSync } from 'node:child_process'
import { mkdtempSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { testPicture } from '../../core/media/testFacts'
import { TaskControl } from '../../server/jobs/control'
import { framePicture, measureBlack } from '../../server/engine/picture/picture'
import { probeFile } from '../../server/engine/probe/probe'
import { Stopped } from '../../server/engine/tool/stopped'
import { runTool, ToolFailed } from '../../server/engine/tool/tool'
import { args } from '../args'

const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-transcode-'))

/** A clip made by Debian's ffmpeg. */
function clip(name: string, source: string, ...more: string[]): Buffer {
  const path = join(folder, name)
  execFileSync('ffmpeg', [
    ...args('-v error -y -f lavfi -i'),
    source,
    ...more,
    ...args('-c:v libx264 -preset ultrafast -pix_fmt yuv420p'),
    path,
  ])
  return Buffer.from(path)
}

describe('bars', () => {
  it('are measured on the picture', async () => {
    const input = clip('barred.mp4', 'testsrc2=s=640x300:r=25:d=1,pad=640:360:0:30:black')
    const { video } = await probeFile(input)
    if (!video) throw new Error('no picture')
    expect(await measureBlack(input, video)).toEqual({ bars: { left: 0, right: 0, top: 30, bottom: 30 }, black: false })
    const whole = clip('whole.mp4', 'testsrc2=s=640x360:r=25:d=1')
    expect(await measureBlack(whole, video)).toEqual({ bars: { left: 0, right: 0, top: 0, bottom: 0 }, black: false })
  })
})

const SHOWN = testPicture({ widthPx: 640, heightPx: 360 })

describe('pictures of frames', () => {
  it('are taken where asked, and refused where nothing can be decoded', async () => {
    const input = clip('picture.mp4', 'testsrc2=s=640x360:r=25:d=1')
    const picture = await framePicture(input, SHOWN, 0.5, 480)
    expect(picture.subarray(0, 3).toString('hex')).toBe('ffd8ff')
    await expect(framePicture(input, SHOWN, 99, 480)).rejects.toThrow()
  })
})

describe('outside programs', () => {
  it('are ended at their time limit and by the person, and give their last words', async () => {
    const endless = ['-nostdin', '-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=r=25', '-f', 'null', '-']
    await expect(runTool({ program: 'ffmpeg', args: endless, seconds: 0.5 })).rejects.toThrow('longer than 0.5 s')
    const control = new TaskControl()
    const running = runTool({ program: 'ffmpeg', args: endless, seconds: 60, control })
    setTimeout(() => control.obey('stop'), 200)
    await expect(running).rejects.toBeInstanceOf(Stopped)
    await expect(
      runTool({ program: 'ffmpeg', args: ['-v', 'error', '-i', '/nowhere.mp4'], seconds: 5 }),
    ).rejects.toBeInstanceOf(ToolFailed)
  })

  it('read nothing but files: no name on a card can make them fetch', async () => {
    const list = join(folder, 'list.m3u8')
    execFileSync('sh', ['-c', 'printf "#EXTM3U\\n#EXTINF:1,\\nhttp://127.0.0.1:9/clip.ts\\n" > "$1"', 'sh', list])
    await expect(probeFile(Buffer.from(list))).rejects.toBeInstanceOf(ToolFailed)
  })
})
