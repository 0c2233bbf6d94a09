import { sql } from 'kysely'
import type { Db } from '../connection'
import { takeVerdict } from './review'

export interface ReviewState {
  readonly productionId: string
  /** Somebody said of a take whether it is kept. */
  readonly decided: boolean
  /** Kept takes that have a name, and those that have the camera’s. */
  readonly named: number
  readonly unnamed: number
  /** Takes that lie in the sorted view, and those that belong there, could be placed now, and are not. */
  readonly placed: number
  readonly unplaced: number
}

/**
 * How far review and the sorted view of productions have come. A take can be placed when a proved copy of its picture
 * and its sound is connected, its volume of the view too, and a folder takes it.
 */
export async function reviewStates(
  db: Db,
  productionIds: readonly string[],
  host: string,
): Promise<Map<string, ReviewState>> {
  const { rows } = await sql<ReviewState>`
    with asked as (
      select id, view.volume_id, coalesce(view.settings->>'which', 'keep') as which,
        view.settings is null or jsonb_path_exists(view.settings, '$.template[*] ? (@.takes == "a-roll" || @.takes == "b-roll")') as films,
        view.settings is null or jsonb_path_exists(view.settings, '$.template[*] ? (@.takes == "b-roll" || @.takes == "sound")') as sounds,
        view.volume_id is null or exists (select from mount where mount.volume_id = view.volume_id and host = ${host} and connected) as there
      from unnest(${productionIds}::uuid[]) as asked (id) left join sorted_view view on view.production_id = asked.id
    ), taken as (
      select asked.*, take.id as take_id, file.entry_id, review.name, ${takeVerdict} as verdict,
        case when file.has_video or file.has_picture or file.probe->'sequence' is not null then films else sounds end as fits
      from asked join media_file file on file.production_id = asked.id and file.shown
        join take on take.id = file.id left join review on review.media_file_id = file.id
      where exists (select from review said join media_file of on of.id = said.media_file_id
        where of.production_id = asked.id and said.verdict is not null)
    ), wanted as (
      select taken.*, exists (select from sorted_file lies where lies.entry_id = taken.entry_id and lies.production_id = taken.id
        and (taken.volume_id is null or lies.volume_id = taken.volume_id)) as lies
      from taken where verdict = 'keep' or (which = 'not-rejected' and verdict is distinct from 'reject')
    )
    select id as production_id, true as decided,
      count(*) filter (where verdict = 'keep' and name is not null)::int as named,
      count(*) filter (where verdict = 'keep' and name is null)::int as unnamed,
      count(*) filter (where lies)::int as placed,
      count(*) filter (where not lies and there and fits and not exists (
        select from take_file part left join media_file own on own.id = part.media_file_id
        where part.take_id = wanted.take_id and part.role in ('picture', 'sound') and (not part.main or own.shown)
          and not exists (select from copy_file held join mount on mount.volume_id = held.volume_id and mount.host = ${host} and mount.connected
            where held.entry_id = part.entry_id and held.standing in ('verified', 'memory'))
        ))::int as unplaced
    from wanted group by id
    union all
    select asked.id, true, 0, 0, 0, 0 from asked
      where not exists (select from wanted where wanted.id = asked.id) and exists (select from taken where taken.id = asked.id)`.execute(
    db,
  )
  return new Map(rows.map((row) => [row.productionId, row]))
}
