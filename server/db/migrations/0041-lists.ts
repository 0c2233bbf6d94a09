import { sql, type Kysely } from 'kysely'

/** How folders stood against checksum lists of anybody, what was found, and lists that were written. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    create table list_check (
      id uuid primary key references task(id),
      folder text not null,
      list text not null,
      checked jsonb not null,
      ended_at timestamptz not null default now()
    );
    create index list_check_lately on list_check (ended_at, id);
    create table list_finding (
      id uuid primary key default gen_random_uuid(),
      check_id uuid not null references list_check(id) on delete cascade,
      place bigint not null,
      kind text not null,
      path_text text not null,
      line integer,
      detail text not null,
      unique (check_id, place)
    );
    create index list_finding_by_kind on list_finding (check_id, kind, place);
    create table written_list (
      id uuid primary key default gen_random_uuid(),
      task_id uuid not null references task(id),
      folder text not null,
      algorithm text not null,
      lines integer not null,
      path text,
      name text not null,
      checked_in text not null,
      written_at timestamptz not null default now(),
      unique (task_id, algorithm)
    );
    create index written_list_lately on written_list (written_at, id);`,
    )
    .execute(db)
}
