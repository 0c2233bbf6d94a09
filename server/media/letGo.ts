import { execFile } from 'node:child_process'
import { readdir, readFile, readlink } from 'node:fs/promises'
import { join } from 'node:path'
import { setTimeout as wait } from 'node:timers/promises'
import { promisify } from 'node:util'
import { alsoMounted } from '../engine/medium/device'
import { mountedNow, mounts } from '../engine/medium/mounts'
import { pluggedInAround } from './appeared'
import { within } from './register'

const run = promisify(execFile)
const PATIENCE_MS = 60_000
const TRIES = 6
const PAUSE_MS = 500

/** What came of letting go of a folder. */
export type LetGo =
  | { readonly kind: 'out' }
  /** Unmounted, and something of its disk is still mounted at other places. */
  | { readonly kind: 'elsewhere'; readonly at: readonly string[] }
  /** It is no mount of its own: everything is written, and it goes with its drive. */
  | { readonly kind: 'folder' }
  /** By programs. */
  | { readonly kind: 'held'; readonly by: readonly string[] }
  /** By what is mounted inside. */
  | { readonly kind: 'around'; readonly at: readonly string[] }
  /** The system does not let this account unmount it. */
  | { readonly kind: 'refused'; readonly why: string }
  /** What was written to it last did not reach it. */
  | { readonly kind: 'unwritten'; readonly why: string }

/** What a program said when it failed. */
const said = (error: unknown): string =>
  (error instanceof Error && 'stderr' in error && String(error.stderr).trim()) || String(error)

/**
 * Waits until everything is written and unmounts a card or drive, where the system allows it; else says who holds it.
 */
export async function letGo(folder: string): Promise<LetGo> {
  try {
    await run('sync', ['-f', folder], { timeout: PATIENCE_MS })
  } catch (error) {
    return { kind: 'unwritten', why: error instanceof Error && 'killed' in error && error.killed ? '' : said(error) }
  }
  const root = isMounted(folder) ? folder : pluggedInAround(folder)
  if (root === undefined) return { kind: 'folder' }
  const inside = mountedNow(root).map((bytes) => join(root, Buffer.from(bytes, 'latin1').toString()))
  if (inside.length > 0) return { kind: 'around', at: inside }
  const at = await alsoMounted(root)
  let why = ''
  for (let turn = 1; turn <= TRIES; turn += 1) {
    const refused = await run('umount', [root], { timeout: PATIENCE_MS }).then(() => undefined, said)
    // Something may be mounted at one place twice.
    if (refused === undefined && isMounted(root)) continue
    if (refused === undefined) return at.length > 0 ? { kind: 'elsewhere', at } : { kind: 'out' }
    why = refused
    // Our own scans hold it for a moment only.
    if (!/busy/i.test(why)) break
    await wait(PAUSE_MS)
  }
  const by = await holdersOf(root)
  return by.length > 0 ? { kind: 'held', by } : { kind: 'refused', why }
}

const isMounted = (root: string): boolean => mounts().some((mount) => mount.path === root)

/** Programs that have something open below a folder, by name and number. Source: proc(5): cwd, root, exe, fd. */
export async function holdersOf(root: string): Promise<string[]> {
  const found: string[] = []
  for (const pid of await readdir('/proc')) {
    if (!/^\d+$/.test(pid)) continue
    const open = await readdir(`/proc/${pid}/fd`).catch((): string[] => [])
    const links = ['cwd', 'root', 'exe', ...open.map((fd) => `fd/${fd}`)]
    const targets = await Promise.all(links.map((link) => readlink(`/proc/${pid}/${link}`).catch(() => '')))
    if (!targets.some((target) => target !== '' && within(target, root))) continue
    const name = (await readFile(`/proc/${pid}/comm`, 'utf8').catch(() => '')).trim()
    found.push(`${name || 'a program'} (${pid})`)
  }
  return found
}

/** For a person: `CURLEW may be pulled out.` */
export function letGoSentence(name: string, done: LetGo): string {
  switch (done.kind) {
    case 'out':
      return `${name} may be pulled out.`
    case 'elsewhere':
      return (
        `Everything is written to ${name}, and it is unmounted. Its disk is still in use at ` +
        `${list(done.at)}: let go of that too before you pull it out.`
      )
    case 'folder':
      return `Everything is written to ${name}. It is a folder of a drive that is in use: it goes with that drive.`
    case 'held':
      return `${name} is still held by ${list(done.by)}. Close what is open there, then let go again.`
    case 'around':
      return (
        `${name} cannot go while something else is mounted inside it, at ${list(done.at)}. Unmount that ` +
        'first, then let go again.'
      )
    case 'refused':
      return (
        `Everything is written to ${name}, but the system does not let Yendra unmount it (${done.why}). ` +
        'Eject it with your file manager before you pull it out.'
      )
    case 'unwritten':
      return done.why === ''
        ? `${name} is still being written to after a minute. Leave it where it is, and let go again.`
        : `What was written to ${name} last may be missing on it (${done.why}). Leave it where it is, and ` +
            'read its copies again.'
  }
}

const list = (names: readonly string[]): string => new Intl.ListFormat('en-GB').format(names)
