import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterAll, describe, expect, it } from 'vitest'
import { busOf } from './bus'

const root = mkdtempSync(join(tmpdir(), 'yendra-bus-'))
afterAll(() => rmSync(root, { recursive: true, force: true }))

/** A device tree as Linux shows it. Source: Documentation/ABI/testing/sysfs-bus-usb; the layout is from memory. */
function plug(path: string, speeds: Readonly<Record<string, string>>): string {
  const block = join(root, 'devices/pci0000:00', path)
  mkdirSync(block, { recursive: true })
  for (const [port, speed] of Object.entries(speeds)) {
    const folder = join(root, 'devices/pci0000:00', port)
    writeFileSync(join(folder, 'idVendor'), '0bda\n')
    writeFileSync(join(folder, 'speed'), `${speed}\n`)
  }
  mkdirSync(join(root, 'dev'), { recursive: true })
  const link = join(root, 'dev', `${Object.keys(speeds).length}:${path.length}`)
  symlinkSync(block, link)
  return link
}

describe('the links of a drive', () => {
  it('are those of its cable, its hub and the bus, the slow one with its speed', async () => {
    const block = plug('usb1/1-4/1-4.2/1-4.2:1.0/host4/target4:0:0/4:0:0:0/block/sdb', {
      usb1: '5000',
      'usb1/1-4': '5000',
      'usb1/1-4/1-4.2': '480',
    })
    expect(await busOf(block)).toEqual([
      { port: '1-4.2', bitsPerSecond: 480e6 },
      { port: '1-4', bitsPerSecond: 5e9 },
      { port: 'usb1', bitsPerSecond: 5e9 },
    ])
  })

  it('are none for a drive inside, or one that is gone', async () => {
    expect(await busOf(plug('nvme/nvme0/nvme0n1', {}))).toEqual([])
    expect(await busOf(join(root, 'nothing'))).toEqual([])
  })
})
