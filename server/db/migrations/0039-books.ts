import { sql, type Kysely } from 'kysely'

/** Charts that somebody kept by hand: what they say stands beside what is proved, and can be taken back whole. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    alter table said drop constraint said_kind_check, add constraint said_kind_check check (kind in
      ('answered', 'spot-played', 'formatted', 'unformatted', 'different-drives', 'found-wrong', 'found-whole', 'books', 'books-taken-back'));
    create table book_import (
      id uuid primary key default gen_random_uuid(),
      at timestamptz not null default clock_timestamp(),
      file_name text not null,
      print text not null,
      lines integer not null,
      taken_back_at timestamptz
    );
    create unique index book_import_print on book_import (print) where taken_back_at is null;
    create table book_line (
      id uuid primary key default gen_random_uuid(),
      import_id uuid not null references book_import(id),
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
    create index book_line_import on book_line (import_id);
    create index book_line_name on book_line (lower(production), lower(label));
    create index book_line_load on book_line (load_id);
    create index book_line_place on book_line (place, id) where shown and load_id is null;
    create index book_line_production on book_line (production_id, place, id);
    create index book_line_client on book_line (client_id, place, id);
    create index book_line_year on book_line (year, place, id);
    create table book_copy (
      line_id uuid not null references book_line(id),
      name text not null,
      volume_id uuid references volume(id),
      said text not null,
      primary key (line_id, name)
    );
    create index book_copy_volume on book_copy (volume_id, line_id);`,
    )
    .execute(db)
}
