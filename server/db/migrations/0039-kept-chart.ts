import { sql, type Kysely } from 'kysely'

/** Charts that somebody kept by hand: what they say stands beside what is proved, and can be taken back whole. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    alter table said drop constraint said_kind_check, add constraint said_kind_check check (kind in
      ('answered', 'spot-played', 'formatted', 'unformatted', 'different-drives', 'found-wrong', 'found-whole', 'kept-chart', 'kept-chart-taken-back'));
    create table kept_chart (
      id uuid primary key default gen_random_uuid(),
      at timestamptz not null default clock_timestamp(),
      file_name text not null,
      print text not null,
      lines integer not null,
      taken_back_at timestamptz
    );
    create unique index kept_chart_print on kept_chart (print) where taken_back_at is null;
    create table kept_line (
      id uuid primary key default gen_random_uuid(),
      import_id uuid not null references kept_chart(id),
      number integer not null,
      client text not null,
      client_id uuid,
      production text not null,
      production_id uuid,
      shoot_on date,
      label text not null,
      camera text not null,
      size_bytes bigint,
      formatted text not null,
      year integer not null,
      place text collate "C" not null,
      load_id uuid references load(id),
      shown boolean not null default true
    );
    create index kept_line_import on kept_line (import_id);
    create index kept_line_name on kept_line (lower(production), lower(label));
    create index kept_line_load on kept_line (load_id);
    create index kept_line_place on kept_line (place, id) where shown and load_id is null;
    create index kept_line_production on kept_line (production_id, place, id);
    create index kept_line_client on kept_line (client_id, place, id);
    create index kept_line_year on kept_line (year, place, id);
    create table kept_copy (
      line_id uuid not null references kept_line(id),
      name text not null,
      volume_id uuid references volume(id),
      said text not null,
      primary key (line_id, name)
    );
    create index kept_copy_volume on kept_copy (volume_id, line_id);`,
    )
    .execute(db)
}
