import { sql, type SelectQueryBuilder } from 'kysely'
import type { PageAsked } from '../../../contract/page'
import type { JournalRow } from '../../../core/copies/journal'
import type { Db } from '../connection'
import { pageOf } from '../page'
import type { Database } from '../schema'

interface Entry {
  readonly id: string
  readonly at: Date
  readonly detail: JournalRow
}

/**
 * What was done to a load, seen of it and said of it. Tasks tell of copies and readings; what they listed meanwhile
 * stands under its own time.
 */
export function journalOf(db: Db, loadId: string, asked: PageAsked) {
  const entries = sql<Entry>`(
    select md5('task' || task.id)::uuid as id, coalesce(ended_at, created_at) as at,
      jsonb_build_object('kind', 'task', 'title', title, 'sentence', sentence) as detail
      from task where load_id = ${loadId} and ended_at is not null and kind in ('scan', 'copy', 'check', 'twin', 'repair')
    union all select md5('seen' || seen.id)::uuid, seen.at, jsonb_build_object('kind', 'seen', 'volumeName', volume.name,
      'files', file_count, 'sizeBytes', size_bytes)
      from seen left join volume on volume.id = seen.volume_id where load_id = ${loadId}
        -- Before anything lay there nothing was seen.
        and (file_count > 0 or exists (select from seen earlier where earlier.load_id = seen.load_id
          and earlier.volume_id = seen.volume_id and earlier.id < seen.id and earlier.file_count > 0))
    union all select md5('said' || said.id)::uuid, said.at, jsonb_build_object('kind', 'said', 'said', said.kind, 'volumeName', volume.name,
      'path', load_entry.path_text, 'against', against, 'note', nullif(coalesce(detail->>'reason', detail->>'note', detail->>'answer'), ''))
      from said left join volume on volume.id = said.volume_id left join load_entry on load_entry.id = said.entry_id
      where said.load_id = ${loadId}
    union all select md5('note' || journal.id)::uuid, journal.at, jsonb_build_object('kind', 'note', 'note', journal.kind, 'volumeName', volume.name)
      from journal left join volume on volume.id = journal.volume_id where load_id = ${loadId} and journal.kind <> 'copied'
  )`.as('entry')
  // What is joined here is no table of the schema.
  const query = db.selectFrom(entries).selectAll() as unknown as SelectQueryBuilder<Database, never, Entry>
  return pageOf(query, { by: 'entry.at', type: 'timestamptz', id: 'entry.id' }, asked)
}

/** Files of a load, each with how it stands on every volume that has or had it; only those that are amiss anywhere. */
export function copiedFiles(db: Db, loadId: string, troubled: boolean, asked: PageAsked) {
  const query = db
    .selectFrom('loadEntry')
    .select(['loadEntry.id', 'loadEntry.pathText', 'loadEntry.sizeBytes', 'loadEntry.state'])
    .select(
      sql<{ volumeId: string; standing: string; provedAt: string }[]>`coalesce((
        select jsonb_agg(jsonb_build_object('volumeId', volume_id, 'standing', standing, 'provedAt', proved_at))
        from copy_file where entry_id = load_entry.id), '[]')`.as('on'),
    )
    .where('loadEntry.loadId', '=', loadId)
    .where('loadEntry.kind', '=', 'file')
    .where('loadEntry.state', '!=', 'replaced')
    .$if(troubled, (files) =>
      files.where(
        sql<boolean>`exists (select from copy_file f where f.entry_id = load_entry.id and on_card and standing not in ('verified', 'memory'))`,
      ),
    )
  return pageOf(query, { by: 'load_entry.id', type: 'bigint', id: 'load_entry.load_id' }, asked)
}
