import { execFile } from 'node:child_process'
import { readdir, readFile, readlink } from 'node:fs/promises'
import { setTimeout as wait } from 'node:timers/promises'
import { promisify } from 'node:util'
import { mounts } from '../engine/mounts'
import { within } from './register'

const run = promisify(execFile)
const PATIENCE_MS = 60_000
const TRIES = 6
const PAUSE_MS = 500

/** What came of letting go of a folder. */
export type LetGo =
  | { readonly kind: 'out' }
  /** It is no mount of its own: everything is written, and it goes with its drive. */
  | { readonly kind: 'folder' }
  | { readonly kind: 'held'; readonly by: readonly string[] }
  /** The system does not let this account unmount it. */
  | { readonly kind: 'refused'; readonly why: string }

/** Waits until everything is written and unmounts a card or drive, where the system allows it; else says who holds it. */
export async function letGo(root: string): Promise<LetGo> {
  await run('sync', ['-f', root], { timeout: PATIENCE_MS })
  if (!mounts().some((mount) => mount.path === root)) return { kind: 'folder' }
  let why = ''
  for (let turn = 1; turn <= TRIES; turn += 1) {
    const refused = await run('umount', [root], { timeout: PATIENCE_MS }).then(
      () => undefined,
      (error: unknown) => (error instanceof Error && 'stderr' in error ? String(error.stderr) : String(error)).trim(),
    )
    if (refused === undefined) return { kind: 'out' }
    why = refused
    // Our own looks hold it for a moment only.
    if (!/busy/i.test(why)) break
    await wait(PAUSE_MS)
  }
  const by = await holdersOf(root)
  return by.length > 0 ? { kind: 'held', by } : { kind: 'refused', why }
}

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
    case 'folder':
      return `Everything is written to ${name}. It is a folder of a drive that is in use: it goes with that drive.`
    case 'held':
      return `${name} is still held by ${new Intl.ListFormat('en-GB').format(done.by)}. Close what is open there, then let go again.`
    case 'refused':
      return `Everything is written to ${name}, but the system does not let Yendra unmount it (${done.why}). Eject it with your file manager before you pull it out.`
  }
}
