import { sql, type RawBuilder } from 'kysely'
import type { MayHold } from '../../../core/cards/files/belongs'
import type { Db } from '../connection'

/** Nobody films for more productions than that at a time; older ones are chosen by hand. */
const MOST = 200

/** Cards of one shoot come home within weeks. */
const LATELY_DAYS = 90
/** When the first or last clip of a load was written, without going through all of them. */
const filmed = (order: RawBuilder<unknown>) => sql`
  select e.modified_ms as ms from media_file f join load_entry e on e.id = f.entry_id
  where f.load_id = l.id and f.shown order by ${order} limit 1`

/**
 * Productions that a card may be for, the newest first, each with what its loads are called. Those that are known from
 * the records alone are none.
 */
export async function mayHold(db: Db): Promise<(MayHold & { readonly labels: readonly string[] })[]> {
  const { rows } = await sql<MayHold & { labels: string[] }>`
    select p.id, p.shoot_on::text, p.time_zone,
      coalesce((select jsonb_agg(c.camera_id) from planned_camera c where c.production_id = p.id), '[]') as camera_ids,
      coalesce((select jsonb_agg(c.card_id) from planned_card c where c.production_id = p.id), '[]') as card_ids,
      coalesce((select jsonb_agg(l.label) from load l where l.production_id = p.id), '[]') as labels,
      coalesce((select jsonb_agg(jsonb_build_object('cameraId', l.camera_id, 'from', first.ms, 'to', last.ms))
        from load l
          cross join lateral (${filmed(sql`f.recorded_at, f.id`)}) first
          cross join lateral (${filmed(sql`f.recorded_at desc, f.id desc`)}) last
        where l.production_id = p.id and l.scanned_at > clock_timestamp() - make_interval(days => ${LATELY_DAYS})), '[]') as taken
    from production p
    where p.put_away_at is null and (exists (select from load l where l.production_id = p.id)
      or not exists (select from production_bytes b where b.production_id = p.id))
    order by p.created_at desc limit ${MOST}`.execute(db)
  return rows
}

/** Names of what is in the gear book, cards with what the system called the file systems that lay on them. */
export async function gearNames(db: Db) {
  const [cards, cameras] = await Promise.all([
    db
      .selectFrom('card')
      .select(['id', 'name'])
      .select(
        sql<
          string[]
        >`array(select distinct volume_uid from load where load.card_id = card.id and volume_uid is not null)`.as(
          'uids',
        ),
      )
      .where('putAwayAt', 'is', null)
      .execute(),
    db.selectFrom('camera').select(['id', 'name']).where('putAwayAt', 'is', null).execute(),
  ])
  return { cards, cameras }
}
