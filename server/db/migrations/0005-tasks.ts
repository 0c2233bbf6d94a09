import { sql, type Kysely } from 'kysely'

/** Tasks: one open task of a kind for each subject, attempts, orders that nothing can lose. */
const STATEMENTS = [
  `alter table task add column subject text, add column idempotency_key text, add column died int not null default 0`,
  `update task set subject = id::text`,
  `alter table task alter column subject set not null`,
  `create unique index task_one_open on task (kind, subject) where state in ('queued', 'running', 'paused')`,
  `create unique index task_idempotency on task (idempotency_key)`,
  `alter table proxy add column decoded_frames int, add column decode_errors int`,
  `create index task_created on task (created_at desc)`,
  `create table attempt (
    id uuid primary key default gen_random_uuid(), task_id uuid not null references task, host text not null,
    started_at timestamptz not null default clock_timestamp(), ended_at timestamptz, how text)`,
  `create index attempt_task on attempt (task_id)`,
  `create index attempt_open on attempt (host) where ended_at is null`,
  `create table task_order (
    id bigint generated always as identity primary key, task_id uuid not null references task, task_order text not null,
    at timestamptz not null default clock_timestamp(), obeyed_at timestamptz)`,
  `create index task_order_open on task_order (task_id) where obeyed_at is null`,
  `create table tool_child (attempt_id uuid not null references attempt, pid int not null, started_ticks text not null, primary key (attempt_id, pid, started_ticks))`,
]

export async function up(db: Kysely<unknown>): Promise<void> {
  for (const statement of STATEMENTS) await sql.raw(statement).execute(db)
}
