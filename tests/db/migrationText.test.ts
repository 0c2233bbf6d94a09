import { createHash } from 'node:crypto'
import { readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'

const FOLDER = 'server/db/migrations'
const LANDED = 'tests/db/migrations.sha256'

const textOf = (path: string) => readFileSync(path, 'utf8')
const files = readdirSync(FOLDER, { recursive: true, encoding: 'utf8' })
  .filter((path) => path.endsWith('.ts') && path !== 'index.ts')
  .sort()

describe('a migration that landed', () => {
  it('is never changed, since databases were opened by it', () => {
    // As sha256sum writes them; a new migration is added when it lands: cd server/db/migrations && sha256sum …
    const landed = textOf(LANDED).trim().split('\n')
    const now = files.map(
      (path) =>
        `${createHash('sha256')
          .update(textOf(join(FOLDER, path)))
          .digest('hex')}  ${path}`,
    )
    expect(now).toEqual(landed)
  })

  it('imports nothing that is still being changed', () => {
    const reachesOut = files.flatMap((path) => {
      const up = '../'.repeat(path.split('/').length)
      return [...textOf(join(FOLDER, path)).matchAll(/from '([^']+)'/g)].flatMap(([, from = '']) =>
        from.startsWith(up) || (!from.startsWith('.') && from !== 'kysely') ? [`${path}: ${from}`] : [],
      )
    })
    expect(reachesOut).toEqual([])
  })
})
