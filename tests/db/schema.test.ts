import { readdirSync, readFileSync, writeFileSync } from 'node:fs'
import { execFileSync } from 'node:child_process'
import { join } from 'node:path'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Db } from '../../server/db/connection'
import { testCluster } from './database'
import { schemaText } from './schemaText'
import { typedTables, type ColumnShape } from './schemaTypes'

/** Written anew after a migration: YENDRA_WRITE_SCHEMA=1 npx vitest run tests/db/schema.test.ts */
const WRITTEN = 'docs/schema.sql'

/** Columns that a trigger fills whatever was given. */
const MADE_BY_TRIGGERS = [sql`('media_file', 'recorded_at')`, sql`('media_file', 'filmed_order')`]

const CREATED = /^create or replace (function|trigger) (\w+)(?:[^;$]*?\bon (\w+))?/gm

let cluster: Awaited<ReturnType<typeof testCluster>>
let fresh: Db
beforeAll(async () => {
  cluster = await testCluster()
  fresh = await cluster.open('fresh')
  if (process.env.YENDRA_WRITE_SCHEMA) writeFileSync(WRITTEN, schemaText(cluster.url('fresh')))
})
afterAll(async () => {
  await fresh.destroy()
  await cluster.stop()
})

describe('the schema', () => {
  it('is the one that is written down', () => {
    expect(schemaText(cluster.url('fresh'))).toBe(readFileSync(WRITTEN, 'utf8'))
  })

  it('is the same in a database that came from an older version', async () => {
    const kept = join(import.meta.dirname, 'books', '2026-11-28.sql')
    execFileSync('psql', ['-q', '-v', 'ON_ERROR_STOP=1', '-f', kept, cluster.url('older')])
    await (await cluster.open('older')).destroy()
    expect(schemaText(cluster.url('older'))).toBe(readFileSync(WRITTEN, 'utf8'))
  })

  it('has the functions and triggers of server/db/functions, each written there once, and no others', async () => {
    const folder = 'server/db/functions'
    const written = readdirSync(folder)
      .filter((name) => name.endsWith('.sql'))
      .flatMap((name) => [...readFileSync(join(folder, name), 'utf8').matchAll(CREATED)])
      .map(([, kind = '', name = '', table = '']) => [kind, name, table].join(' ').trim())
    const { rows } = await sql<{ what: string }>`
      select 'function ' || proname as what from pg_proc where pronamespace = 'public'::regnamespace
      union all select 'trigger ' || tgname || ' ' || tgrelid::regclass from pg_trigger where not tgisinternal`.execute(
      fresh,
    )
    expect(written.sort()).toEqual(rows.map((row) => row.what).sort())
  })

  it('is what the types say: every table and column, what may be null and what the database fills', async () => {
    const { rows } = await sql<{ tableName: string; columnName: string } & ColumnShape>`
      select table_name, column_name, is_nullable = 'YES' as nullable,
        case when 'ALWAYS' in (is_generated, identity_generation) or (table_name, column_name) in (${sql.join(MADE_BY_TRIGGERS)}) then 'never'
          when is_nullable = 'YES' or column_default is not null or is_identity = 'YES' then 'optional' else 'needed' end as insert
      from information_schema.columns where table_schema = 'public' and table_name not like 'kysely%'`.execute(fresh)
    const typed = typedTables()
    const built: Record<string, Record<string, ColumnShape>> = {}
    for (const { tableName, columnName, nullable, insert } of rows) {
      // The types may ask for what the database would fill.
      const isAskedFor = insert === 'optional' && typed[tableName]?.[columnName]?.insert === 'needed'
      ;(built[tableName] ??= {})[columnName] = { nullable, insert: isAskedFor ? 'needed' : insert }
    }
    expect(typed).toEqual(built)
  })
})

describe('words of a name', () => {
  it.each([
    ['Slipway at dawn.mp4', 'dawn'],
    ['Slipway at dawn', 'dawn'],
    ['one.two three.wav', 'three'],
  ])('of %j are found by %j', async (name, word) => {
    const { rows } = await sql<{ found: boolean }>`
      select search_words(${name}) @@ to_tsquery('simple', ${word}) as found`.execute(fresh)
    expect(rows).toEqual([{ found: true }])
  })
})
