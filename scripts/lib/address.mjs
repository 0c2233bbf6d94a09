import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, rmSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { freePort } from './postgres.mjs'

/** Where Yendra is looked for first. */
const FIRST_PORT = 4600

const kept = (file) => (existsSync(file) ? readFileSync(file, 'utf8').trim() : '')

/**
 * The port of this home: the one that it had before, so that pages that are open find it again, else the next free one.
 * `taken` is the one that it had, where another program has that now.
 */
export async function homePort(home) {
  const file = join(home, 'port')
  const before = Number(kept(file)) || undefined
  const port = await freePort(before ?? FIRST_PORT)
  return { port, taken: before !== undefined && port !== before ? before : undefined }
}

/** From now on this is the port of this home. */
export const keepPort = (home, port) => writeFileSync(join(home, 'port'), String(port), { mode: 0o600 })

export const isFree = async (port) => (await freePort(port)) === port

/**
 * The access key of this home: it stays, so that who was let in once is let in after the next start; `anew` makes
 * another one.
 */
export function homeKey(home, anew) {
  const file = join(home, 'access-key')
  if (anew) rmSync(file, { force: true })
  const before = kept(file)
  if (before) return before
  const key = randomBytes(24).toString('base64url')
  writeFileSync(file, key, { mode: 0o600 })
  return key
}
