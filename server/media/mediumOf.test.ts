import { mkdirSync, mkdtempSync, renameSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { beforeEach, describe, expect, it } from 'vitest'
import type { Db } from '../db/connection'
import { FolderMedium } from '../engine/medium/folder'
import { MARKER } from './marker'
import { inPlace, volumeMedium } from './mediumOf'

const ID = '6f1c1c1e-7a55-4d0e-9a8e-0a8f3f6f2b11'
// No question is asked of a database for a real folder.
const db = {} as Db

let root: string
beforeEach(() => {
  root = join(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-place-')), 'Tide 1')
  mkdirSync(join(root, '.yendra'), { recursive: true })
  writeFileSync(join(root, MARKER), JSON.stringify({ id: ID }))
})

describe('the root of a volume', () => {
  it('is compared before and after what is read of it', async () => {
    const medium = new FolderMedium(root)
    expect(await inPlace(medium, () => Promise.resolve('read'))).toBe('read')
    const swapped = await inPlace(medium, () => {
      renameSync(root, `${root} away`)
      mkdirSync(root)
      return Promise.resolve('read')
    })
    expect(swapped).toBeUndefined()
    renameSync(root, `${root} gone`)
    expect(await inPlace(medium, () => Promise.resolve('read'))).toBeUndefined()
  })

  it('is the volume only while its marker says so', async () => {
    const place = { id: ID, simulated: false, rootPath: root }
    expect(await volumeMedium(db, place)).toBeDefined()
    expect(await volumeMedium(db, { ...place, id: '0d5a9d0e-55d4-4ad9-8d8f-7f1f1b1c1d11' })).toBeUndefined()
    renameSync(root, `${root} away`)
    expect(await volumeMedium(db, place)).toBeUndefined()
  })
})
