import { execFileSync } from 'node:child_process'
import { mkdtempSync, readFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { afterEach, describe, expect, it } from 'vitest'
import { canMount, loopDrive, unmountAll } from './mounts'
import { mediumNumber } from '../../server/engine/medium/device'
import { bytesMoved, movedBelow } from '../../server/engine/medium/traffic'

afterEach(unmountAll)

describe('what a drive has moved', () => {
  it('is read from the table of the kernel, disk by disk', () => {
    // Lines as in Documentation/admin-guide/iostats.rst of Linux; the numbers are from memory.
    const table = [
      '   3    0   hda 446216 784926 9550688 4382310 424847 312726 5922052 19310380 0 3376340 23705160',
      '   3    1   hda1 35486 0 35496 0 38030 0 38030 0 0 0 0',
    ].join('\n')
    expect(bytesMoved(table, new Set(['hda']))).toBe((9550688 + 5922052) * 512)
    expect(bytesMoved(table, new Set(['hda', 'hda1']))).toBe((9550688 + 5922052 + 35496 + 38030) * 512)
    expect(bytesMoved(table, new Set(['sda']))).toBe(0)
  })

  it.runIf(canMount)('grows with what another program moves there, as its own counter says', async () => {
    const root = loopDrive(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-traffic-')), 'tide')
    const [device] = (await mediumNumber(root)).split('#')
    const ofKernel = () => {
      const fields = readFileSync(`/sys/block/${device}/stat`, 'utf8').trim().split(/\s+/).map(Number)
      return ((fields[2] ?? 0) + (fields[6] ?? 0)) * 512
    }
    const before = await movedBelow(root)
    execFileSync('dd', ['if=/dev/zero', `of=${root}/film`, 'bs=1M', 'count=20', 'oflag=direct', 'status=none'])
    const [after, kernel] = [await movedBelow(root), ofKernel()]
    expect((after ?? 0) - (before ?? 0)).toBeGreaterThanOrEqual(20 * 1024 ** 2)
    expect(Math.abs((after ?? 0) - kernel)).toBeLessThan(1024 ** 2)
  })
})
