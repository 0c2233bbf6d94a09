import { sql, type Kysely } from 'kysely'

/**
 * How a file differs from its proof, what a reading of a copy met beside, and, for each copy, its oldest proof and how
 * many other good copies there are: what is read again first.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    alter table proof add column difference text check (difference in
      ('rot', 'rewritten', 'edited', 'replaced', 'unclear', 'unsteady', 'unreadable', 'missing'));
    alter table reading drop constraint reading_how_check, add constraint reading_how_check check (how in ('whole', 'sample', 'cycle'));
    alter table reading add column retried integer not null default 0, add column bytes_per_second double precision;
    create index reading_lately on reading (volume_id, at);
    create index mirror_amiss on mirror (load_id, volume_id) where files_differ + files_changed + files_missing > 0;
    create table chart_copy (
      load_id uuid not null references load(id),
      volume_id uuid not null references volume(id),
      oldest_at timestamptz not null,
      others smallint not null,
      primary key (load_id, volume_id)
    );
    create index chart_copy_oldest on chart_copy (volume_id, oldest_at);
    insert into chart_due (load_id) select id from load;`,
    )
    .execute(db)
}
