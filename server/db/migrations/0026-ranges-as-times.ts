import { sql, type Kysely } from 'kysely'

/**
 * Ranges were counted in frames of a rate that may be another one after the next look, and that a variable film does not have.
 * From now on they are times from the start of the clip, in microseconds: as they were shown, since a film was played by them.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql`alter table review add column times jsonb not null default '[]'`.execute(db)
  await sql`
    update review set times = coalesce((
      select jsonb_agg(jsonb_build_object(
          'from', round((range->>'from')::numeric * 1000000 * rate.den / rate.num),
          'to', round((range->>'to')::numeric * 1000000 * rate.den / rate.num)) order by place)
      from jsonb_array_elements(review.ranges) with ordinality as one (range, place)), '[]')
    from (
      select id,
        coalesce((probe#>>'{video,rate,num}')::numeric, 1000) as num, coalesce((probe#>>'{video,rate,den}')::numeric, 1) as den
      from clip) rate
    where rate.id = review.clip_id and review.ranges <> '[]'`.execute(db)
  await sql`alter table review drop column ranges`.execute(db)
}
