import { sql, type Kysely } from 'kysely'

/**
 * Rules of a yes have names, and a client or a production chooses one. What a person had set until now becomes a rule
 * of its own where no shipped one says the same. What a volume keeps its bytes on and what kind of place a site is are
 * said by a person: what was guessed from names holds only where it makes a yes harder.
 */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    create table clear_rule (
      id uuid primary key default gen_random_uuid(),
      name text not null,
      copies integer not null check (copies >= 2),
      devices integer not null check (devices between 2 and copies),
      media integer not null check (media >= 1),
      sites integer not null check (sites >= 1),
      played integer not null check (played >= 1),
      card_out boolean not null,
      at_desk boolean not null,
      proof_hours integer not null check (proof_hours >= 1),
      accept_memory boolean not null,
      shipped boolean not null default false,
      put_away_at timestamptz,
      created_at timestamptz not null default clock_timestamp()
    );
    create unique index clear_rule_name on clear_rule (lower(name));
    insert into clear_rule (id, name, copies, devices, media, sites, played, card_out, at_desk, proof_hours, accept_memory, shipped)
    values
      ('00000000-0000-4000-8000-000000000001', 'At home only', 2, 2, 1, 1, 1, false, true, 24, false, true),
      ('00000000-0000-4000-8000-000000000002', 'Reuse on the job', 2, 2, 1, 1, 1, true, false, 24, false, true);
    with until_now as (
      select coalesce(value->>'policy', 'at-home-only') = 'reuse-on-the-job' as reuse,
        coalesce((value->>'acceptMemory')::boolean, false) as memory, coalesce((value->>'proofHours')::integer, 24) as hours
      from setting where key = 'person'
    )
    insert into clear_rule (name, copies, devices, media, sites, played, card_out, at_desk, proof_hours, accept_memory)
    select 'Your rule until now', 2, 2, 1, 1, 1, reuse, not reuse, hours, memory from until_now where memory or hours <> 24;
    update setting set value = jsonb_build_object('atHome', coalesce((value->>'atHome')::boolean, true), 'ruleId', coalesce(
      (select id from clear_rule where not shipped),
      case when value->>'policy' = 'reuse-on-the-job' then '00000000-0000-4000-8000-000000000002'::uuid
        else '00000000-0000-4000-8000-000000000001'::uuid end))
    where key = 'person';
    alter table client add column rule_id uuid references clear_rule(id),
      add column raw text not null default 'all' check (raw in ('all', 'film-and-tracks'));
    alter table production add column rule_id uuid references clear_rule(id);
    create index client_rule on client (rule_id);
    create index production_rule on production (rule_id);
    alter table volume add column medium text check (medium in ('disk', 'solid-state', 'flash', 'cloud'));
    alter table site alter column kind drop not null;
    alter table site alter column kind drop default;
    update site set kind = case when kind = 'carried' then 'carried' end;
    alter table site add constraint site_kind check (kind in ('stays', 'carried', 'online'));`,
    )
    .execute(db)
}
