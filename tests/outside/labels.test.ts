import { execFileSync } from 'node:child_process'
import { expect, it } from 'vitest'
import { qrPath } from '../../web/locker/qrPath'

/** The drawn modules as a picture, eight dots each (PBM, netpbm). */
function pictureOf({ path, modules }: ReturnType<typeof qrPath>): Buffer {
  const dark = new Set([...path.matchAll(/M(\d+) (\d+)h1v1h-1z/g)].map(([, x, y]) => `${x} ${y}`))
  const rows = Array.from({ length: modules * 8 }, (_, y) =>
    Array.from({ length: modules * 8 }, (_, x) => (dark.has(`${x >> 3} ${y >> 3}`) ? 1 : 0)).join(' '),
  )
  return Buffer.from(`P1\n${modules * 8} ${modules * 8}\n${rows.join('\n')}\n`)
}

// Source: zbarimg of Debian.
it.each(['Tide 2\ndrive 6f9619ff-8b86-4011-b42d-00c04fc964ff', 'Möwe „Ω“ 潮 3', 'n'.repeat(60)])(
  'the code of a label says %j to another program',
  (text) => {
    const read = execFileSync('zbarimg', ['-q', '--raw', '-Sdisable', '-Sqrcode.enable', '-'], {
      input: pictureOf(qrPath(text)),
      encoding: 'utf8',
      stdio: ['pipe', 'pipe', 'ignore'],
    })
    expect(read.trimEnd()).toBe(text)
  },
)
