import { sql, type Kysely } from 'kysely'
import { USUAL_CHOICE } from './core0022/exports/plan'
import type { MediaFacts } from './core0022/media/facts'
import { currentFacts } from './core0022/media/olderFacts'
import { judgeDeliverables, judgeProxies } from './judge'

/** What was read of media files takes the shape of the reader that knows more; what it knew not is open until the next look. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table proxy add column times_compared int, add column worst_seconds double precision`.execute(db)
  await sql`create table proxy_sample (clip_id uuid primary key references clip on delete cascade, bytes bigint not null, measured_at timestamptz not null default now())`.execute(
    db,
  )
  await sql`alter table deliverable
    add column choice jsonb not null default ${sql.lit(JSON.stringify(USUAL_CHOICE))}::jsonb,
    add column measured jsonb`.execute(db)
  await sql`update deliverable set measured = jsonb_build_object('bars', bars)`.execute(db)
  await sql`alter table deliverable alter column measured set not null, drop column bars`.execute(db)
  for (const table of ['clip', 'proxy', 'deliverable'] as const) await widen(db, table)
  await judgeProxies(db)
  await judgeDeliverables(db)
}

async function widen(db: Kysely<unknown>, table: 'clip' | 'proxy' | 'deliverable'): Promise<void> {
  for (let after = ''; ;) {
    const { rows } = await sql<{ id: string; probe: MediaFacts }>`
      select id, probe from ${sql.table(table)}
      where probe is not null and id::text > ${after} order by id::text limit 2000`.execute(db)
    const last = rows.at(-1)
    if (!last) return
    after = last.id
    const wide = rows.map(({ id, probe }) => ({ id, probe: currentFacts(probe) }))
    await sql`update ${sql.table(table)} kept set probe = wide.probe
      from jsonb_to_recordset(${JSON.stringify(wide)}::jsonb) as wide (id uuid, probe jsonb) where kept.id = wide.id`.execute(
      db,
    )
  }
}
