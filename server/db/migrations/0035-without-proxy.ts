import { sql, type Kysely } from 'kysely'

/** Clips that a person does without a proxy of: nothing asks for one of them. */
export async function up(db: Kysely<unknown>): Promise<void> {
  await sql
    .raw(
      `
    create table without_proxy (media_file_id uuid primary key references media_file(id) on delete cascade);
    alter table media_file add column proxy_wanted boolean not null default true;
    alter table load_summary add column proxies_without integer not null default 0;`,
    )
    .execute(db)
}
