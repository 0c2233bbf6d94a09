import { sql, type Kysely } from 'kysely'

/**
 * The chart of all loads: for each its place in the order, what it is in danger of, and its oldest proof, reckoned from
 * the facts whenever one of them changes. Each volume has a time within which all on it is to be read again.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    alter table volume add column cycle_days integer not null default 180 check (cycle_days between 1 and 3650);
    create table chart_line (
      load_id uuid primary key references load(id),
      production_id uuid not null,
      client_id uuid,
      year integer not null,
      place text collate "C" not null,
      danger smallint not null,
      oldest_proof_at timestamptz
    );
    create index chart_line_place on chart_line (place, load_id);
    create index chart_line_production on chart_line (production_id, place, load_id);
    create index chart_line_client on chart_line (client_id, place, load_id);
    create index chart_line_year on chart_line (year, place, load_id);
    create index chart_line_in_danger on chart_line (place, load_id) where danger > 0;
    create index chart_line_worst on chart_line (danger desc, place) where danger > 0;
    create table chart_place (
      of_id uuid not null,
      place text collate "C" not null,
      load_id uuid not null references load(id),
      primary key (of_id, place, load_id)
    );
    create index chart_place_load on chart_place (load_id);
    create table chart_due (
      id bigint generated always as identity primary key,
      load_id uuid not null references load(id),
      due_at timestamptz not null default clock_timestamp()
    );
    create index chart_due_at on chart_due (due_at);
    create index chart_due_load on chart_due (load_id);
    insert into chart_due (load_id) select id from load;`,
    )
    .execute(db)
}
