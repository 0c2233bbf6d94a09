import { mkdirSync, mkdtempSync, realpathSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { dirname, join } from 'node:path'
import { beforeAll, describe, expect, it } from 'vitest'
import { foldersIn, mountedPlaces } from './choose'
import { mounts } from '../engine/medium/mounts'

const root = realpathSync(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-choose-')))

beforeAll(() => {
  process.env.YENDRA_HOME = join(root, 'home')
  for (const folder of ['home', 'Tide 10', 'Tide 9', 'Slipway/Productions', '.hidden'])
    mkdirSync(join(root, folder), { recursive: true })
  writeFileSync(join(root, 'a file'), '')
  symlinkSync('/etc', join(root, 'a link'))
})

describe('choosing a folder', () => {
  it('shows folders by name, neither files nor links nor hidden ones, and says which cannot be registered', async () => {
    const view = await foldersIn(root, [join(root, 'Slipway')])
    expect(view.folders.map((folder) => folder.name)).toEqual(['home', 'Slipway', 'Tide 9', 'Tide 10'])
    const refusals = new Map(view.folders.map((folder) => [folder.name, folder.refusal?.sentence]))
    expect(refusals.get('home')).toContain('keeps its own things')
    expect(refusals.get('Slipway')).toContain('registered already')
    expect(refusals.get('Tide 9')).toBeUndefined()
    expect(view.above).toBe(dirname(root))
    await expect(foldersIn(join(root, 'a file'), [])).rejects.toThrow('cannot be opened')
    await expect(foldersIn(join(root, 'nowhere'), [])).rejects.toThrow('cannot be opened')
  })

  it('begins with drives that are mounted, and offers nothing of the system', async () => {
    const places = await mountedPlaces([])
    expect(places.at(-1)?.name).toBe('Your own folder')
    const paths = places.map((place) => place.path)
    for (const system of ['/', '/proc', '/sys', '/boot']) expect(paths).not.toContain(system)
    // Source: proc_pid_mountinfo(5): every process sees its own root mounted.
    expect(mounts().map((mount) => mount.path)).toContain('/')
  })
})
