import { sql, type Kysely } from 'kysely'
import { frameRate, parseFrameRate } from './core0022/units/frameRate'

/** What is put away is hidden from lists and choices; nothing of it is lost. */
const AWAY = ['production', 'camera', 'card', 'volume', 'site', 'reader']

const STATEMENTS = [
  ...AWAY.map((table) => `alter table ${table} add column put_away_at timestamptz`),
  `create table client (
    id uuid primary key default gen_random_uuid(), name text not null, put_away_at timestamptz,
    created_at timestamptz not null default clock_timestamp())`,
  `create unique index client_name on client (lower(name))`,
  `insert into client (name) select min(client) from production where client <> '' group by lower(client)`,
  `alter table production add column client_id uuid references client`,
  `update production set client_id = (select id from client where lower(client.name) = lower(production.client)) where client <> ''`,
  `alter table production drop column client`,
  `create index production_client on production (client_id)`,
  `alter table camera
    add column kind text not null default 'camera' check (kind in ('camera', 'recorder', 'phone', 'deck')),
    add column media text not null default 'cards' check (media in ('cards', 'internal', 'tape')),
    add column internal_bytes bigint not null default 0,
    add column slots int not null default 1 check (slots in (1, 2)),
    add column spans boolean not null default true,
    add column battery_minutes int not null default 0`,
  `create table recording_mode (
    id uuid primary key default gen_random_uuid(), camera_id uuid not null references camera on delete cascade,
    name text not null, figures jsonb not null, put_away_at timestamptz,
    created_at timestamptz not null default clock_timestamp())`,
  `create index recording_mode_camera on recording_mode (camera_id)`,
  `alter table card add column bytes_per_second bigint not null default 0`,
  `update card set capacity_bytes = 0 where capacity_bytes is null`,
  `alter table card alter column capacity_bytes set not null`,
  `create unique index card_name on card (lower(name))`,
  // A plan is no fact: it goes with its production, and with what it plans.
  `create table plan (production_id uuid primary key references production on delete cascade, version int not null default 0)`,
  `create table planned_takes (
    production_id uuid not null references plan on delete cascade, place int not null,
    camera_id uuid not null references camera on delete cascade, mode_id uuid not null references recording_mode on delete cascade,
    seconds_per_take int not null, takes int not null, angles int not null, factor double precision not null,
    primary key (production_id, place))`,
  `create index planned_takes_camera on planned_takes (camera_id)`,
  `create index planned_takes_mode on planned_takes (mode_id)`,
  `create table planned_camera (
    production_id uuid not null references plan on delete cascade, place int not null,
    camera_id uuid not null references camera on delete cascade, both_slots boolean not null,
    card_bytes bigint not null, card_bytes_per_second bigint not null, primary key (production_id, camera_id))`,
  `create index planned_camera_camera on planned_camera (camera_id)`,
  `create table planned_card (
    production_id uuid not null references plan on delete cascade, card_id uuid not null references card on delete cascade,
    camera_id uuid not null references camera on delete cascade, place int not null, primary key (production_id, card_id))`,
  `create index planned_card_card on planned_card (card_id)`,
  `create index planned_card_camera on planned_card (camera_id)`,
  `create table shot (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production on delete cascade,
    place double precision not null, name text not null, camera_id uuid references camera on delete set null,
    deliverables jsonb not null default '[]', notes text not null default '', filmed_at timestamptz,
    created_at timestamptz not null default clock_timestamp())`,
  `create index shot_production on shot (production_id, place, id)`,
  `create index shot_camera on shot (camera_id)`,
  `create table day_sheet (
    production_id uuid primary key references production on delete cascade, place text not null default '', calls jsonb not null default '[]')`,
  // What clips of one frame size, rate and codec of a load came to; without a load it is known from the books.
  `create table recorded (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production, load_id uuid references load,
    camera_id uuid references camera, label text not null, width_px int not null, height_px int not null, rate text not null, codec text not null,
    clips int not null, size_bytes bigint not null, seconds double precision not null, at timestamptz not null default clock_timestamp())`,
  `create index recorded_production on recorded (production_id)`,
  `create index recorded_load on recorded (load_id)`,
  `create index recorded_camera on recorded (camera_id)`,
  // Emptying a card: what it held, and what that took or became.
  `create table offload (
    id uuid primary key default gen_random_uuid(), production_id uuid not null references production, load_id uuid references load,
    camera_id uuid references camera, label text not null, size_bytes bigint not null, seconds double precision, exported_bytes bigint,
    at timestamptz not null default clock_timestamp())`,
  `create index offload_production on offload (production_id)`,
  `create index offload_load on offload (load_id)`,
  `create index offload_camera on offload (camera_id)`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
  await movePlans(db)
  await sql.raw(`drop table camera_plan`).execute(db)
}

interface OldPlan {
  readonly productionId: string
  readonly camera: string
  readonly widthPx: number
  readonly heightPx: number
  readonly rate: string
  readonly videoBitsPerSecond: number
  readonly audioBitsPerSecond: number
  readonly secondsPerTake: number
  readonly takes: number
  readonly cardBytes: number
  readonly cardBytesPerSecond: number
}

/** Each plan of a camera becomes takes in a mode of that camera in the gear book. */
async function movePlans(db: Kysely<unknown>): Promise<void> {
  const { rows } = await sql<OldPlan>`select * from camera_plan order by created_at, id`.execute(db)
  const idOf = async (query: ReturnType<typeof sql<{ id: string }>>) => (await query.execute(db)).rows[0]?.id ?? ''
  const modes = new Map<string, string>()
  for (const [place, plan] of rows.entries()) {
    const cameraId = await idOf(
      sql`insert into camera (name) values (${plan.camera}) on conflict (name) do update set name = excluded.name returning id`,
    )
    const figures = JSON.stringify({
      picture: {
        widthPx: plan.widthPx,
        heightPx: plan.heightPx,
        rate: parseFrameRate(plan.rate) ?? frameRate(25),
        codec: 'H.264',
        bitDepth: 8,
        chroma: '4:2:0',
        coding: { kind: 'coded', bitsPerSecond: plan.videoBitsPerSecond },
      },
      audioBitsPerSecond: plan.audioBitsPerSecond,
      proxyBitsPerSecond: 0,
    })
    const key = `${cameraId} ${figures}`
    const modeId =
      modes.get(key) ??
      (await idOf(
        sql`insert into recording_mode (camera_id, name, figures) values (${cameraId}, ${`${plan.widthPx}×${plan.heightPx} at ${plan.rate.replace('/1', '')}`}, ${figures}) returning id`,
      ))
    modes.set(key, modeId)
    await sql`insert into plan (production_id) values (${plan.productionId}) on conflict do nothing`.execute(db)
    await sql`insert into planned_camera values (${plan.productionId}, ${place}, ${cameraId}, false, ${plan.cardBytes}, ${plan.cardBytesPerSecond}) on conflict do nothing`.execute(
      db,
    )
    await sql`insert into planned_takes values (${plan.productionId}, ${place}, ${cameraId}, ${modeId}, ${plan.secondsPerTake}, ${plan.takes}, 1, 1)`.execute(
      db,
    )
  }
}
