import { execFileSync } from 'node:child_process'

/**
 * How a database is built: tables, indexes, functions and triggers as pg_dump (PostgreSQL) tells them, without what
 * differs between its releases.
 */
export function schemaText(url: string): string {
  const told = execFileSync('pg_dump', ['--schema-only', '--no-owner', '--no-privileges', '-d', url], {
    encoding: 'utf8',
  })
  return `${told
    .split('\n')
    .filter((line) => !/^(--|SET |SELECT pg_catalog\.set_config|\\(un)?restrict )/.test(line))
    .join('\n')
    .replace(/\n{3,}/g, '\n\n')
    .trim()}\n`
}
