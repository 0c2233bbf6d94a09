import { randomUUID } from 'node:crypto'
import fc from 'fast-check'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Db } from '../../server/db/connection'
import { addProduction } from '../../server/db/queries/productions'
import { putSeams } from '../../server/db/queries/clocks'
import { arrangeTakes, mediaFileIds, takeOf, type PlacedFile } from '../../server/db/queries/takes'
import { takesToReview, takeParts } from '../../server/db/queries/review'
import { testCluster } from './database'

let cluster: Awaited<ReturnType<typeof testCluster>>
let db: Db
beforeAll(async () => {
  cluster = await testCluster()
  db = await cluster.open('takes')
})
afterAll(async () => {
  await db.destroy()
  await cluster.stop()
})

const FILES = 6

/** Two cards of one production with so many films each, as a look begins with them. */
async function twoCards() {
  const production = await addProduction(db, { title: `Two cards ${randomUUID()}` })
  const productionId = production?.id ?? ''
  const loadIds: string[] = []
  for (const label of ['Curlew A', 'Curlew B']) {
    const { id: loadId } = await db
      .insertInto('load')
      .values({ productionId, label, fileCount: FILES, sizeBytes: FILES, leftOut: 0 })
      .returning('id')
      .executeTakeFirstOrThrow()
    loadIds.push(loadId)
    await sql`with entry as (
        insert into load_entry (load_id, path, path_text, kind, size_bytes, modified_ms)
        select ${loadId}, convert_to('C' || n || '.MP4', 'UTF8'), 'C' || n || '.MP4', 'file', 1, 0 from generate_series(1, ${FILES}::int) n returning id, path_text)
      insert into media_file (load_id, production_id, entry_id, path_text, name, size_bytes, has_picture, picture_made)
      select ${loadId}, ${productionId}, id, path_text, path_text, 1, true, true from entry`.execute(db)
  }
  return { productionId, loadIds }
}

type Step =
  | {
      readonly kind: 'look'
      readonly card: number
      readonly cuts: readonly boolean[]
      readonly beside: readonly boolean[]
    }
  | { readonly kind: 'state'; readonly card: number; readonly file: number; readonly state: 'on-card' | 'gone' }
  | { readonly kind: 'seam'; readonly isOne: boolean; readonly from: number }

const bits = fc.array(fc.boolean(), { minLength: FILES, maxLength: FILES })
const steps: fc.Arbitrary<Step> = fc.oneof(
  fc.record({ kind: fc.constant('look' as const), card: fc.nat(1), cuts: bits, beside: bits }),
  fc.record({
    kind: fc.constant('state' as const),
    card: fc.nat(1),
    file: fc.nat(FILES - 1),
    state: fc.constantFrom('on-card' as const, 'gone' as const),
  }),
  fc.record({ kind: fc.constant('seam' as const), isOne: fc.boolean(), from: fc.nat(1) }),
)

/** The films on a card as takes: a cut begins another one, a film that stands beside goes with the one before it. */
async function look(loadId: string, cuts: readonly boolean[], beside: readonly boolean[]): Promise<void> {
  const placed: PlacedFile[] = []
  for (const [at, [entryId, id]] of [...(await mediaFileIds(db, loadId))].sort(([a], [b]) => a - b).entries()) {
    const last = placed.at(-1)
    if (last && beside[at]) placed.push({ ...last, entryId, mediaFileId: id, main: false, role: 'camera-proxy' })
    else if (last && !cuts[at])
      placed.push({ ...last, entryId, mediaFileId: id, main: true, role: 'picture', part: last.part + 1 })
    else placed.push({ entryId, takeId: id, mediaFileId: id, main: true, role: 'picture', part: 1, number: null })
  }
  await db.transaction().execute((tx) => arrangeTakes(tx, loadId, placed))
}

/** What the takes of a production come to, asked of the rows one by one. */
async function rowsOf(productionId: string) {
  const { rows } = await sql<{
    id: string
    loadId: string
    takeId: string | null
    part: number | null
    main: boolean | null
    shown: boolean
    goesOn: boolean
  }>`
    select file.id, file.load_id, f.take_id, f.part, f.main, file.shown, file.goes_on
    from media_file file left join take_file f on f.entry_id = file.entry_id and f.media_file_id = file.id
    where file.production_id = ${productionId} order by f.take_id, f.part`.execute(db)
  return rows
}

describe('files of two cards as takes', () => {
  it('are each in one take that begins with its own first file, however cards are scanned, emptied and joined', async () => {
    await fc.assert(
      fc.asyncProperty(fc.array(steps, { minLength: 1, maxLength: 9 }), async (drawn) => {
        const { productionId, loadIds } = await twoCards()
        for (const step of drawn) {
          const loadId = loadIds['card' in step ? step.card : step.from] ?? ''
          if (step.kind === 'look') await look(loadId, step.cuts, step.beside)
          else if (step.kind === 'state')
            await sql`update load_entry set state = ${step.state}, copied = true
              where id = (select id from load_entry where load_id = ${loadId} order by id offset ${step.file} limit 1)`.execute(
              db,
            )
          else {
            const [mains, others] = [step.from, 1 - step.from].map(async (card) =>
              (await rowsOf(productionId)).filter((row) => row.loadId === loadIds[card] && row.main && row.shown),
            )
            const [last, first] = [(await mains)?.at(-1), (await others)?.find((row) => !row.goesOn)]
            const goesOn = { name: 'a', from: 'b', fromLabel: 'c' }
            await putSeams(
              db,
              productionId,
              step.isOne && last && first ? [{ loadId: first.loadId, goesOn, clipId: first.id, afterId: last.id }] : [],
            )
          }
        }
        const rows = await rowsOf(productionId)
        expect(rows).toHaveLength(2 * FILES)
        for (const { id, takeId, main, shown, part } of rows) {
          expect(takeId).not.toBeNull()
          if (main) expect(shown).toBe(true)
          const take = await takeOf(db, id)
          expect(rows.find((row) => row.id === take?.id)).toMatchObject({ takeId: take?.id, main: true, part: 1 })
          expect(part).toBeGreaterThan(0)
        }
        // Counted by the database from rows that change, and anew by hand.
        const shown = rows.filter((row) => row.main && row.shown)
        const takes = new Set(shown.map((row) => row.takeId))
        expect(await takesToReview(db, productionId)).toBe(takes.size)
        for (const takeId of takes) {
          const parts = await takeParts(db, [takeId ?? ''])
          const own = shown.filter((row) => row.takeId === takeId)
          expect(new Set(parts.map((row) => row.id))).toEqual(new Set(own.map((row) => row.id)))
          expect(parts[0]?.parts).toBe(new Set(parts.map((row) => row.part)).size)
        }
      }),
      { numRuns: 40 },
    )
  })
})
