import { sql, type Kysely } from 'kysely'
import { findingKeyOf } from './core0022/cards/findings'

/** What is true now of each file of a copy, and how many are so: kept with the facts, in the same transaction. */
const STATEMENTS = [
  `alter table load_entry add column copied boolean not null default false, add column odd boolean not null default false`,
  `update load_entry set odd = path_text like '%\\\\%', copied = exists (select 1 from proof where proof.entry_id = load_entry.id and outcome = 'equal')`,
  `alter table copy_plan rename to mirror`,
  `alter table mirror drop constraint copy_plan_load_id_fkey, drop constraint copy_plan_volume_id_fkey,
    add constraint mirror_load_id_fkey foreign key (load_id) references load, add constraint mirror_volume_id_fkey foreign key (volume_id) references volume,
    add column present boolean not null default true, add column seen_at timestamptz, add column seen_id bigint references seen,
    add column files_verified int not null default 0, add column files_memory int not null default 0, add column files_missing int not null default 0,
    add column files_changed int not null default 0, add column files_differ int not null default 0, add column files_conflict int not null default 0,
    add column size_bytes bigint not null default 0, add column copied_bytes bigint not null default 0`,
  `create index mirror_seen on mirror (seen_id)`,
  `create table production_bytes (
    production_id uuid not null references production, volume_id uuid not null references volume, byte_class text not null,
    size_bytes bigint not null default 0, primary key (production_id, volume_id, byte_class))`,
  `create index production_bytes_volume on production_bytes (volume_id)`,
  `create table copy_file (
    load_id uuid not null references load, volume_id uuid not null references volume, entry_id bigint not null references load_entry,
    proof_id bigint not null references proof, proved_at timestamptz not null, on_card boolean not null, entry_bytes bigint not null,
    placed_at timestamptz not null, listed text not null default 'as-proved' check (listed in ('as-proved', 'absent', 'changed')),
    absent_at timestamptz, standing text not null check (standing in ('verified', 'memory', 'missing', 'changed', 'differs', 'conflict')),
    primary key (volume_id, entry_id))`,
  `create index copy_file_copy on copy_file (load_id, volume_id, on_card, standing, proved_at)`,
  `create index copy_file_entry on copy_file (entry_id)`,
  `create index copy_file_proof on copy_file (proof_id)`,
  `create table load_finding (
    load_id uuid not null references load, kind text not null, files int not null, print text not null, primary key (load_id, kind))`,
  ...['insert', 'update'].flatMap((event) => {
    const old =
      event === 'update' ? `union all select load_id, volume_id, standing, on_card, entry_bytes, -1 from old_files` : ''
    return [
      `create function count_copy_files_${event}() returns trigger language plpgsql as $$
      begin
        update mirror set
          files_verified = mirror.files_verified + delta.verified, files_memory = mirror.files_memory + delta.memory,
          files_missing = mirror.files_missing + delta.missing, files_changed = mirror.files_changed + delta.changed,
          files_differ = mirror.files_differ + delta.differ, files_conflict = mirror.files_conflict + delta.conflict,
          size_bytes = mirror.size_bytes + delta.bytes, copied_bytes = mirror.copied_bytes + delta.all_bytes
        from (
          select load_id, volume_id,
            coalesce(sum(sign) filter (where on_card and standing = 'verified'), 0) as verified,
            coalesce(sum(sign) filter (where on_card and standing = 'memory'), 0) as memory,
            coalesce(sum(sign) filter (where on_card and standing = 'missing'), 0) as missing,
            coalesce(sum(sign) filter (where on_card and standing = 'changed'), 0) as changed,
            coalesce(sum(sign) filter (where on_card and standing = 'differs'), 0) as differ,
            coalesce(sum(sign) filter (where on_card and standing = 'conflict'), 0) as conflict,
            coalesce(sum(sign * entry_bytes) filter (where on_card and standing in ('verified', 'memory')), 0) as bytes,
            coalesce(sum(sign * entry_bytes) filter (where standing in ('verified', 'memory')), 0) as all_bytes
          from (select load_id, volume_id, standing, on_card, entry_bytes, 1 as sign from new_files ${old}) as files
          group by load_id, volume_id) as delta
        where mirror.load_id = delta.load_id and mirror.volume_id = delta.volume_id
          and (delta.verified, delta.memory, delta.missing, delta.changed, delta.differ, delta.conflict, delta.bytes, delta.all_bytes)
            is distinct from (0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::bigint, 0::numeric, 0::numeric);
        return null;
      end $$`,
      `create trigger count_copy_files_${event} after ${event} on copy_file
        referencing new table as new_files ${event === 'update' ? 'old table as old_files' : ''}
        for each statement execute function count_copy_files_${event}()`,
    ]
  }),
  `create function add_production_bytes(production uuid, volume uuid, class text, bytes bigint) returns void language sql as $$
    insert into production_bytes (production_id, volume_id, byte_class, size_bytes) select production, volume, class, bytes where bytes <> 0
    on conflict (production_id, volume_id, byte_class) do update set size_bytes = production_bytes.size_bytes + excluded.size_bytes $$`,
  `create function count_mirror_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes((select production_id from load where id = new.load_id), new.volume_id, 'originals', new.copied_bytes - old.copied_bytes);
      return null;
    end $$`,
  `create trigger count_mirror_bytes after update of copied_bytes on mirror for each row
    when (new.copied_bytes <> old.copied_bytes) execute function count_mirror_bytes()`,
  `create function count_proxy_bytes() returns trigger language plpgsql as $$
    begin
      if tg_op = 'UPDATE' then
        perform add_production_bytes((select production_id from clip where id = old.clip_id), old.volume_id, 'generated', -old.size_bytes);
      end if;
      perform add_production_bytes((select production_id from clip where id = new.clip_id), new.volume_id, 'generated', new.size_bytes);
      return null;
    end $$`,
  `create trigger count_proxy_bytes after insert or update on proxy for each row execute function count_proxy_bytes()`,
  `create function count_output_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes(new.production_id, new.volume_id, 'outputs', new.size_bytes);
      return null;
    end $$`,
  ...['deliverable', 'bag'].map(
    (table) =>
      `create trigger count_output_bytes after insert on ${table} for each row execute function count_output_bytes()`,
  ),
  `create function count_ledger_bytes() returns trigger language plpgsql as $$
    begin
      perform add_production_bytes(new.production_id, new.volume_id, new.byte_class, new.size_bytes);
      return null;
    end $$`,
  `create trigger count_ledger_bytes after insert on ledger for each row execute function count_ledger_bytes()`,
  `select add_production_bytes(clip.production_id, proxy.volume_id, 'generated', proxy.size_bytes) from proxy join clip on clip.id = proxy.clip_id`,
  `select add_production_bytes(production_id, volume_id, 'outputs', size_bytes) from deliverable`,
  `select add_production_bytes(production_id, volume_id, 'outputs', size_bytes) from bag`,
  `select add_production_bytes(production_id, volume_id, byte_class, size_bytes) from ledger`,
  `insert into copy_file (load_id, volume_id, entry_id, proof_id, proved_at, on_card, entry_bytes, placed_at, standing)
    select p.load_id, p.volume_id, p.entry_id, p.id, p.at, e.state = 'on-card', e.size_bytes,
      (select min(q.at) from proof q where q.entry_id = p.entry_id and q.volume_id = p.volume_id),
      case p.outcome when 'equal' then case when p.past_cache then 'verified' else 'memory' end else p.outcome end
    from (select distinct on (volume_id, entry_id) * from proof order by volume_id, entry_id, id desc) p join load_entry e on e.id = p.entry_id
    where e.state <> 'replaced'`,
  `drop table copy_fact`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
  await countFindings(db)
}

async function countFindings(db: Kysely<unknown>): Promise<void> {
  const { rows: loads } = await sql<{ id: string }>`select id from load`.execute(db)
  for (const { id } of loads) await countEntryFindings(db, id)
}

/** Counts what findings are about, after the look of a card was written down; runs in the transaction that wrote it. */
async function countEntryFindings(db: Kysely<unknown>, loadId: string): Promise<void> {
  const { rows } = await sql<{ kind: string; pathText: string }>`
    select case when state = 'gone' and kind = 'file' then case when copied then 'gone' else 'lost' end
      when kind = 'file' then 'odd-name' else kind end as kind, path_text as "pathText"
    from load_entry where load_id = ${loadId} and state <> 'replaced' and kind <> 'folder' and (kind <> 'file' or odd or state = 'gone') order by path`.execute(
    db,
  )
  const paths = new Map<string, string[]>()
  for (const { kind, pathText } of rows) {
    const list = paths.get(kind)
    if (list) list.push(pathText)
    else paths.set(kind, [pathText])
  }
  for (const [kind, list] of paths) {
    await sql`insert into load_finding (load_id, kind, files, print) values (${loadId}, ${kind}, ${list.length}, ${findingKeyOf(kind, list)})`.execute(
      db,
    )
  }
}
