import { execFile } from 'node:child_process'
import { promisify } from 'node:util'

const run = promisify(execFile)

/**
 * Libraries that look up thousands of names of their own when a media program starts, each in all of the two hundred
 * that were loaded before them, which takes longer than reading a clip. What comes first is found at once. It must
 * never change what a name is bound to: a test compares that name by name.
 */
const SEARCHED_MOST = ['libepoxy.so.0', 'libcrypto.so.3']

const known = new Map<string, Promise<string>>()

/**
 * What a program loads first to start quickly, as `LD_PRELOAD` names it; of what it loads anyway. Source: ld.so(8),
 * ldd(1).
 */
export function loadedFirst(program: string): Promise<string> {
  const asked =
    known.get(program) ??
    run('sh', ['-c', 'ldd "$(command -v "$0")"', program]).then(
      ({ stdout }) => SEARCHED_MOST.filter((name) => stdout.includes(`${name} => /`)).join(':'),
      () => '',
    )
  known.set(program, asked)
  return asked
}
