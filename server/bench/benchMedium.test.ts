import { mkdtempSync, readFileSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { alignedBlocks } from '../engine/medium/blocks'
import { BenchMedium } from './benchMedium'
import type { Fault } from '../../contract/bench'
import type { BenchDevice } from './benchDevice'

const healthy: BenchDevice = {
  capacityBytes: 1e9,
  readBytesPerSecond: 1e12,
  writeBytesPerSecond: 1e12,
  plugged: true,
  fault: undefined,
}
const name = Buffer.from('file')

function device(change: Partial<BenchDevice> = {}) {
  const root = mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-device-'))
  const struck: Fault[] = []
  return {
    root,
    struck,
    medium: new BenchMedium(root, {
      id: root,
      settings: { ...healthy, ...change },
      onStruck: (fault) => struck.push(fault),
    }),
  }
}

async function write(medium: BenchMedium, bytes: Uint8Array): Promise<void> {
  const file = await medium.create(name)
  try {
    await file.write(bytes, 0)
    await file.close(0, 'durable')
  } catch (error) {
    await file.abandon()
    throw error
  }
}

describe('a simulated device', () => {
  it('keeps what is written, as a folder does', async () => {
    const { root, medium } = device()
    await write(medium, Buffer.from('footage'))
    expect(readFileSync(join(root, 'file'), 'utf8')).toBe('footage')
    expect((await medium.entry(name))?.sizeBytes).toBe(7)
  })

  it('is full at its capacity, and has room again when a file is given up', async () => {
    const { root, medium } = device({ capacityBytes: 100 })
    await write(medium, Buffer.alloc(60))
    expect(await medium.room()).toEqual({ capacityBytes: 100, freeBytes: 40 })
    const second = await medium.create(Buffer.from('second'))
    await second.write(Buffer.alloc(30), 0)
    await expect(second.write(Buffer.alloc(30), 30)).rejects.toMatchObject({ code: 'ENOSPC' })
    await second.abandon()
    await medium.remove(Buffer.from('second'))
    expect((await medium.room()).freeBytes).toBe(40)
    expect(readFileSync(join(root, 'file')).length).toBe(60)
  })

  it('flips one bit once, without a word', async () => {
    const { root, struck, medium } = device({ fault: { kind: 'flip-bit', afterBytes: 0 } })
    const wanted = Buffer.alloc(1000, 5)
    await write(medium, wanted)
    const found = readFileSync(join(root, 'file'))
    expect([...found].filter((byte, at) => byte !== wanted[at])).toHaveLength(1)
    expect(wanted.every((byte) => byte === 5)).toBe(true)
    expect(struck.map((fault) => fault.kind)).toEqual(['flip-bit'])
    await write(medium, wanted)
    expect(readFileSync(join(root, 'file')).equals(wanted)).toBe(true)
  })

  it('cuts a write short and says that all is well', async () => {
    const { root, medium } = device({ fault: { kind: 'truncate-write', afterBytes: 0 } })
    await write(medium, Buffer.alloc(1000, 5))
    expect(readFileSync(join(root, 'file')).length).toBe(500)
  })

  it('fails to read after so many bytes, once', async () => {
    const { root, medium } = device({ fault: { kind: 'read-error', afterBytes: 4096 } })
    writeFileSync(join(root, 'file'), Buffer.alloc(4096))
    const [block] = alignedBlocks(1, 4096)
    if (!block) throw new Error('no block')
    const file = await medium.open(name)
    expect(await file.read(block, 0)).toBe(4096)
    await file.close()
    const again = await medium.open(name)
    await expect(again.read(block, 0)).rejects.toMatchObject({
      code: 'EIO',
      message: expect.stringContaining('byte 0'),
    })
    expect(await again.read(block, 0)).toBe(4096)
    await again.close()
  })

  it('answers nothing once it is unplugged', async () => {
    const { struck, medium } = device({ fault: { kind: 'unplug', afterBytes: 10 } })
    await expect(write(medium, Buffer.alloc(100))).rejects.toMatchObject({ code: 'ENODEV' })
    expect(struck).toHaveLength(1)
    await expect(medium.list(Buffer.alloc(0))).rejects.toMatchObject({ code: 'ENODEV' })
    await expect(medium.room()).rejects.toMatchObject({ code: 'ENODEV' })
    await expect(device({ plugged: false }).medium.entry(name)).rejects.toMatchObject({ code: 'ENODEV' })
  })

  it('is no faster than its rate', async () => {
    const { medium } = device({ writeBytesPerSecond: 1_000_000 })
    const begun = performance.now()
    await write(medium, Buffer.alloc(100_000))
    // Not a speed test: the pace must hold a write of 0.1 s back for at least that long.
    expect(performance.now() - begun).toBeGreaterThan(80)
  })
})
