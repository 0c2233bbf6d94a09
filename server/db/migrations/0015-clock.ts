import { sql, type Kysely } from 'kysely'

/** A camera’s clock that is off: what was estimated, and by how much the times of its clips are shown moved. */
const STATEMENTS = [
  `alter table load add column clock jsonb, add column clock_shift_ms bigint not null default 0`,
  `alter table clip add column shift_ms bigint not null default 0`,
  // Moving a time is nothing that a generated column may do.
  `alter table clip alter column recorded_at drop expression, alter column filmed_order drop expression`,
  `create function clip_recorded() returns trigger language plpgsql as $$
    declare told text := coalesce(new.probe->>'recordedAt', '');
    begin
      if tg_op = 'INSERT' then
        select clock_shift_ms into new.shift_ms from load where id = new.load_id;
      end if;
      new.recorded_at := told;
      if new.shift_ms <> 0 and told <> '' then
        begin
          new.recorded_at := to_char(
            (told::timestamptz + new.shift_ms * interval '1 millisecond') at time zone 'UTC',
            'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"');
        exception when others then
          -- A date that no calendar has stays as the file says it.
          null;
        end;
      end if;
      new.filmed_order := new.recorded_at || ' ' || left(new.path_text, 240);
      return new;
    end $$`,
  `create trigger clip_recorded before insert or update of probe, shift_ms, path_text on clip
    for each row execute function clip_recorded()`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
