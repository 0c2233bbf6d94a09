import { execFileSync, spawn, spawnSync } from 'node:child_process'
import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { basename, join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { loadedFirst } from '../../server/engine/tool/loadedFirst'
import { probeFile } from '../../server/engine/probe/probe'
import { boundedCommand, endLeftover, INPUT, runTool, startedTicks, ToolFailed } from '../../server/engine/tool/tool'
import { TaskControl } from '../../server/jobs/control'
import { Stopped } from '../../server/engine/tool/stopped'

const ENDLESS = ['-nostdin', '-v', 'error', '-re', '-f', 'lavfi', '-i', 'testsrc2=r=25', '-f', 'null', '-']
const isRunning = (pid: number) => startedTicks(pid) !== undefined && !isZombie(pid)
const isZombie = (pid: number) => {
  try {
    process.kill(pid, 0)
    return false
  } catch {
    return true
  }
}
const soon = async (condition: () => boolean) => {
  for (let turn = 0; turn < 200 && !condition(); turn += 1) await new Promise((resolve) => setTimeout(resolve, 50))
  return condition()
}

describe('a program that gives up', () => {
  const folder = mkdtempSync(join(tmpdir(), 'yendra-reasons-'))
  const film = join(folder, 'film.mp4')
  const made = (name: string, change: (bytes: Buffer) => Buffer) => {
    writeFileSync(join(folder, name), change(readFileSync(film)))
    return Buffer.from(join(folder, name))
  }
  /** What is said of a file that is coded anew, as a proxy is. */
  const coded = async (path: Buffer, output = '/dev/null'): Promise<ToolFailed> => {
    const args = ['-nostdin', '-v', 'error', '-xerror', '-i', INPUT, '-vf', 'scale=160:90', '-f', 'mp4', '-y', output]
    const end = await runTool({ program: 'ffmpeg', input: path, args, seconds: 60 }).catch((error: unknown) => error)
    if (!(end instanceof ToolFailed)) throw new Error(`${path.toString()} is coded`)
    return end
  }
  const mdat = (bytes: Buffer) => [bytes.indexOf('mdat') + 40, bytes.indexOf('moov') - 4] as const

  it('is quoted with what explains it, never with what only says that it ends', async () => {
    // Source: ffmpeg of Debian makes the film; boxes of ISO/IEC 14496-12 are broken by hand.
    execFileSync('ffmpeg', [
      ...['-v', 'error', '-y', '-f', 'lavfi', '-i', 'testsrc2=r=25:d=2:s=320x180', '-f', 'lavfi', '-i', 'sine=d=2'],
      ...['-c:v', 'libx264', '-c:a', 'aac', film],
    ])
    const cut = made('cut.mp4', (bytes) => bytes.subarray(0, mdat(bytes)[1] - 100))
    const damaged = made('damaged.mp4', (bytes) => bytes.fill(0x5a, ...mdat(bytes)))
    const strange = made('strange.mp4', (bytes) =>
      Buffer.from(bytes.toString('latin1').replaceAll('avc1', 'zzz1'), 'latin1'),
    )
    const ends = [
      await coded(cut),
      await coded(damaged),
      await coded(strange),
      await coded(Buffer.from(film), '/dev/full'),
    ]
    expect(ends.map(({ message }) => message)).toEqual([
      'The index is missing, as after a battery that died.',
      'It is damaged and cannot be decoded.',
      'Nothing here decodes what it is coded in.',
      'The drive is full.',
    ])
    for (const { lines } of ends) {
      expect(lines.length).toBeGreaterThan(0)
      expect(lines.join('\n')).not.toMatch(/last message repeated|marking filters|0x[0-9a-f]{8}|dev\/fd/i)
    }
    expect(new ToolFailed('ffmpeg', '[a @ 0x1] Frame 7 is odd\n  Last message repeated 2 times\n').message).toBe(
      'Frame 7 is odd.',
    )
    expect(new ToolFailed('ffmpeg', '\nConversion failed!\n').message).toBe(
      'The program ffmpeg ended and gave no reason.',
    )
  })
})

describe('an outside program', () => {
  it('dies with the worker that started it, also when that is killed', async () => {
    // A parent of its own that starts the program as the engine does, tells its number and is killed.
    const [command, ...bounds] = await boundedCommand('ffmpeg')
    const script = `const c = require('node:child_process').spawn(${JSON.stringify(command)}, ${JSON.stringify([...bounds, ...ENDLESS])}); console.log(c.pid); setInterval(() => {}, 1000)`
    const parent = spawn(process.execPath, ['-e', script], { stdio: ['ignore', 'pipe', 'ignore'] })
    const pid = Number(
      await new Promise<string>((resolve) => parent.stdout.once('data', (chunk: Buffer) => resolve(chunk.toString()))),
    )
    expect(isRunning(pid)).toBe(true)
    parent.kill('SIGKILL')
    expect(await soon(() => !isRunning(pid))).toBe(true)
  })

  it('that was left behind is ended by its recorded identity, and another of the same number is not', async () => {
    const child = spawn('sleep', ['60'])
    const pid = child.pid ?? 0
    expect(endLeftover({ pid, startedTicks: '1' })).toBe(false)
    expect(endLeftover({ pid, startedTicks: startedTicks(pid) ?? '' })).toBe(true)
    expect(await new Promise((resolve) => child.once('exit', (_code, signal) => resolve(signal)))).toBe('SIGKILL')
    expect(endLeftover({ pid, startedTicks: 'gone' })).toBe(false)
  })

  it('has a time limit in which a pause does not count', async () => {
    const control = new TaskControl()
    const running = runTool({ program: 'ffmpeg', args: ENDLESS, seconds: 1.5, control })
    const ended = running.then(
      () => 'ended',
      (error: unknown) => (error instanceof ToolFailed ? 'too long' : 'stopped'),
    )
    await new Promise((resolve) => setTimeout(resolve, 300))
    control.obey('pause')
    const first = await Promise.race([ended, new Promise((resolve) => setTimeout(() => resolve('held'), 2500))])
    expect(first).toBe('held')
    control.obey('resume')
    expect(await ended).toBe('too long')
  })

  it('does not begin once the person has stopped the work, as between two passes of a render', async () => {
    const control = new TaskControl()
    control.obey('stop')
    await expect(runTool({ program: 'ffmpeg', args: ENDLESS, seconds: 60, control })).rejects.toBeInstanceOf(Stopped)
  })

  it('gets no more memory than it is given', async () => {
    // A frame of 20 000 × 20 000 pixels needs 600 MB in 4:2:0, and twice as much while it is scaled.
    const source = ['-f', 'lavfi', '-i', 'color=s=64x64:d=1', '-threads', '1', '-vf', 'scale=20000:20000']
    const args = ['-nostdin', '-v', 'error', ...source, '-f', 'rawvideo', '-y', '/dev/null']
    const run = runTool({ program: 'ffmpeg', args, seconds: 60, memoryBytes: 600 * 1024 ** 2 })
    await expect(run).rejects.toThrow('It asks for more memory than one file is given.')
  })

  it.each(['ffprobe', 'ffmpeg'])(
    'of the media, %s, is bound to the same libraries whatever is loaded first',
    async (program) => {
      // Source: ld.so(8), LD_DEBUG=bindings: each name, who asks for it, and who gives it.
      const bindings = (first: string) => {
        const env = { ...process.env, LD_DEBUG: 'bindings', LD_PRELOAD: first }
        const args = ['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=d=0.2']
        const { stderr } = spawnSync(program, program === 'ffmpeg' ? [...args, '-f', 'null', '-'] : args, {
          env,
          encoding: 'latin1',
          maxBuffer: 64 * 1024 * 1024,
        })
        const found = stderr.matchAll(/binding file (\S+) \[0\] to (\S+) \[0\]: (.*)$/gm)
        return new Set([...found].map(([, from = '', to = '', name]) => `${basename(from)} ${basename(to)} ${name}`))
      }
      const first = await loadedFirst(program)
      expect(first).toContain('.so')
      const usual = bindings('')
      expect(usual.size).toBeGreaterThan(10_000)
      expect(bindings(first)).toEqual(usual)
    },
  )

  it('that is not there is named, with what to do', async () => {
    const run = runTool({ program: 'ffnone' as 'ffmpeg', args: [], seconds: 5 })
    await expect(run).rejects.toThrow('The program ffnone is not installed. Start Yendra again')
  })

  it('opens no list of other files, whatever it is called', async () => {
    const folder = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-lists-'))
    const lists = {
      'playlist.MP4': '#EXTM3U\n#EXT-X-TARGETDURATION:5\n#EXTINF:2,\nfile:///etc/hostname\n#EXT-X-ENDLIST\n',
      'concat.MOV': "ffconcat version 1.0\nfile '/etc/hostname'\n",
      'descriptions.MP4': 'v=0\no=- 0 0 IN IP4 127.0.0.1\nc=IN IP4 127.0.0.1\nm=video 9 RTP/AVP 96\n',
      'manifest.MP4': '<?xml version="1.0"?><MPD xmlns="urn:mpeg:dash:schema:mpd:2011"></MPD>',
    }
    for (const [name, text] of Object.entries(lists)) {
      writeFileSync(join(folder, name), text)
      await expect(probeFile(Buffer.from(join(folder, name))), name).rejects.toBeInstanceOf(ToolFailed)
    }
  })
})
