import { mkdirSync, mkdtempSync, readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, expect, it } from 'vitest'
import { alignedBlocks, itemAt } from '../../server/engine/blocks'
import { FolderMedium } from '../../server/engine/folder'
import { ReaderProcess } from '../../server/engine/readerProcess'

const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-readers-'))
afterAll(() => rmSync(root, { recursive: true }))

const NAMES = ['A', 'B', 'C', 'D'].map((name) => Buffer.from(name))

function card(number: number): FolderMedium {
  const folder = join(root, `card ${number}`)
  mkdirSync(folder)
  for (const name of NAMES) writeFileSync(join(folder, name.toString()), `card ${number}, ${name.toString()}`)
  return new FolderMedium(folder)
}

/** Programs that read for this process, as the system lists them (proc(5)). */
const programs = () =>
  readdirSync('/proc').filter((pid) => {
    if (!/^\d+$/.test(pid)) return false
    try {
      const isOurs =
        readFileSync(`/proc/${pid}/stat`, 'utf8')
          .replace(/^.*\) /, '')
          .split(' ')[1] === String(process.pid)
      return isOurs && readFileSync(`/proc/${pid}/cmdline`, 'utf8').includes('reader.js')
    } catch {
      return false
    }
  })

it('one program reads card after card, and none is told what lies on another, though files are left open', async () => {
  const seen = new Set<string>()
  for (let turn = 0; turn < 40; turn += 1) {
    const reader = new ReaderProcess(card(turn))
    const texts = await Promise.all(
      NAMES.map(async (name, at) => {
        const file = await reader.medium.open(name)
        const block = itemAt(alignedBlocks(1, 4096), 0)
        const bytes = await file.read(block, 0)
        // Every other one is left to whoever has the program next.
        if (at % 2 === 0) await file.close()
        return Buffer.from(block.subarray(0, bytes)).toString()
      }),
    )
    expect(texts).toEqual(NAMES.map((name) => `card ${turn}, ${name.toString()}`))
    for (const pid of programs()) seen.add(pid)
    reader.end()
  }
  expect(seen.size).toBe(1)
})

it('a program that was asked and has not answered is ended, not kept', async () => {
  const reader = new ReaderProcess(card(100))
  await reader.medium.list(Buffer.alloc(0))
  const [before] = programs()
  const asked = reader.medium.open(Buffer.from('A')).catch((error: unknown) => error)
  reader.end()
  // Asked again by itself, of another program.
  await asked
  reader.end()
  expect(before).toBeDefined()
  await expect.poll(() => programs().includes(before ?? '')).toBe(false)
})
