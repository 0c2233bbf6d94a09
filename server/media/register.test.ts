import { execFileSync } from 'node:child_process'
import {
  existsSync,
  mkdirSync,
  mkdtempSync,
  readFileSync,
  realpathSync,
  rmSync,
  symlinkSync,
  writeFileSync,
} from 'node:fs'
import { homedir, tmpdir } from 'node:os'
import { join } from 'node:path'
import { programFolder } from '../home'
import { beforeAll, describe, expect, it } from 'vitest'
import { MARKER, markerIn } from './marker'
import { markVolume, registrableFolder, UnlikelyFolder, WrongFolder } from './register'

const root = realpathSync(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-register-')))
const drive = join(root, 'Slipway')

beforeAll(() => {
  process.env.YENDRA_HOME = join(root, 'home')
  for (const folder of ['home/bench', 'Slipway/Productions', 'Tide']) mkdirSync(join(root, folder), { recursive: true })
  writeFileSync(join(root, 'file'), '')
  symlinkSync('/etc', join(root, 'alias of the system'))
  symlinkSync(drive, join(root, 'alias of the drive'))
})

/** The sentence with which a folder is refused, or `undefined` when it may be registered. */
async function refusal(path: string, taken: (string | null)[] = [], sure = true): Promise<string | undefined> {
  try {
    await registrableFolder(path, taken, sure)
    return undefined
  } catch (error) {
    expect(error).toBeInstanceOf(WrongFolder)
    return (error as Error).message
  }
}

describe('a folder that somebody wants to register', () => {
  it('is taken when it is a drive of its own, by its real path', async () => {
    expect(await refusal(drive)).toBeUndefined()
    expect(await registrableFolder(join(root, 'alias of the drive'), [], true)).toBe(drive)
    expect(await registrableFolder(`${drive}/Productions/..`, [null], true)).toBe(drive)
  })

  it('is refused when there is none, or when it is a file', async () => {
    expect(await refusal(join(root, 'nowhere'))).toContain('There is no folder')
    expect(await refusal(join(root, 'file'))).toContain('There is no folder')
  })

  it('is refused when it belongs to the system, also behind a link', async () => {
    const system = [
      '/',
      '/etc',
      '/usr/bin',
      '/proc/self',
      '/dev',
      '/opt',
      '/srv',
      '/var/lib',
      '/run/lock',
      '/home',
      '/root',
    ]
    for (const path of [...system, homedir(), join(root, 'alias of the system')]) {
      if (!existsSync(path)) continue
      expect(await refusal(path), path).toContain('belongs to the system')
    }
  })

  it('is refused where programs keep keys, and where a check of the file system puts what it found', async () => {
    const hidden = mkdtempSync(join(homedir(), '.yendra-hidden-'))
    mkdirSync(join(hidden, 'keys'))
    mkdirSync(join(drive, 'lost+found'), { recursive: true })
    try {
      for (const path of [hidden, join(hidden, 'keys')])
        expect(await refusal(path), path).toContain('a hidden folder of a home')
      expect(await refusal(join(drive, 'lost+found'))).toContain('belongs to the system')
    } finally {
      rmSync(hidden, { recursive: true })
      rmSync(join(drive, 'lost+found'), { recursive: true })
    }
  })

  it('is refused where Yendra keeps its own things, above and below', async () => {
    expect(await refusal(join(root, 'home'))).toContain('keeps its own things')
    expect(await refusal(join(root, 'home/bench'))).toContain('keeps its own things')
    expect(await refusal(root)).toContain('keeps its own things')
    expect(await refusal(join(programFolder(), 'docs'))).toContain('keeps its own things')
  })

  it('is refused when it overlaps with one that is registered', async () => {
    expect(await refusal(join(drive, 'Productions'), [drive])).toContain(`overlaps with ${drive}`)
    expect(await refusal(drive, [join(drive, 'Productions')])).toContain('overlaps')
    expect(await refusal(join(root, 'Tide'), [drive])).toBeUndefined()
  })

  it('is asked for once more when it is no drive of its own and holds something', async () => {
    await expect(registrableFolder(drive, [], false)).rejects.toThrow(UnlikelyFolder)
    expect(await registrableFolder(join(root, 'Tide'), [], false)).toBe(join(root, 'Tide'))
  })
})

describe('the marker of a volume', () => {
  const fresh = (name: string) => {
    const folder = join(root, name)
    rmSync(folder, { recursive: true, force: true })
    mkdirSync(folder)
    return folder
  }

  it('is written once, is found again, and is taken back when registering fails', async () => {
    const folder = fresh('marked')
    const marked = await markVolume(folder)
    expect(await markerIn(folder)).toBe(marked.id)
    const again = await markVolume(folder)
    expect(again.id).toBe(marked.id)
    await again.undo()
    expect(await markerIn(folder)).toBe(marked.id)
    await marked.undo()
    expect(existsSync(join(folder, '.yendra'))).toBe(false)
  })

  it('never overwrites what a link points to, and never waits for a pipe', async () => {
    const precious = join(root, 'precious.txt')
    writeFileSync(precious, 'precious')
    const linked = fresh('linked')
    mkdirSync(join(linked, '.yendra'))
    symlinkSync(precious, join(linked, MARKER))
    const folderLinked = fresh('folder linked')
    mkdirSync(join(root, 'elsewhere'), { recursive: true })
    symlinkSync(join(root, 'elsewhere'), join(folderLinked, '.yendra'))
    const piped = fresh('piped')
    mkdirSync(join(piped, '.yendra'))
    execFileSync('mkfifo', [join(piped, MARKER)])
    for (const folder of [linked, folderLinked, piped])
      await expect(markVolume(folder), folder).rejects.toThrow(WrongFolder)
    expect(readFileSync(precious, 'utf8')).toBe('precious')
    expect(existsSync(join(root, 'elsewhere/volume.json'))).toBe(false)
  })

  it('of two that are written at the same moment, one is both’s', async () => {
    const folder = fresh('twice at once')
    const ids = await Promise.all(Array.from({ length: 10 }, async () => (await markVolume(folder)).id))
    expect(new Set(ids).size).toBe(1)
    expect(await markerIn(folder)).toBe(ids[0])
  })
})
