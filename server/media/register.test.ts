import { mkdirSync, mkdtempSync, realpathSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { registrableFolder, WrongFolder } from './register'

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
async function refusal(path: string, taken: (string | null)[] = []): Promise<string | undefined> {
  try {
    await registrableFolder(path, taken)
    return undefined
  } catch (error) {
    expect(error).toBeInstanceOf(WrongFolder)
    return (error as Error).message
  }
}

describe('a folder that somebody wants to register', () => {
  it('is taken when it is a drive of its own, by its real path', async () => {
    expect(await refusal(drive)).toBeUndefined()
    expect(await registrableFolder(join(root, 'alias of the drive'), [])).toBe(drive)
    expect(await registrableFolder(`${drive}/Productions/..`, [null])).toBe(drive)
  })

  it('is refused when there is none, or when it is a file', async () => {
    expect(await refusal(join(root, 'nowhere'))).toContain('There is no folder')
    expect(await refusal(join(root, 'file'))).toContain('There is no folder')
  })

  it('is refused when it belongs to the system, also behind a link', async () => {
    for (const path of ['/', '/etc', '/usr/bin', '/proc/self', '/dev', join(root, 'alias of the system')]) {
      expect(await refusal(path), path).toContain('belongs to the system')
    }
  })

  it('is refused where Yendra keeps its own things, above and below', async () => {
    expect(await refusal(join(root, 'home'))).toContain('keeps its own things')
    expect(await refusal(join(root, 'home/bench'))).toContain('keeps its own things')
    expect(await refusal(root)).toContain('keeps its own things')
  })

  it('is refused when it overlaps with one that is registered', async () => {
    expect(await refusal(join(drive, 'Productions'), [drive])).toContain(`overlaps with ${drive}`)
    expect(await refusal(drive, [join(drive, 'Productions')])).toContain('overlaps')
    expect(await refusal(join(root, 'Tide'), [drive])).toBeUndefined()
  })
})
