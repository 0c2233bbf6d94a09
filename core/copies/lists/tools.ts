import type { Algorithm } from './algorithm'

/** Programs of Debian that check lists. */
export type Reader = 'md5sum' | 'sha1sum' | 'sha256sum' | 'sha512sum' | 'xxhsum' | 'rhash'

/**
 * The program that checks a list of ours, whatever names stand in it: measured with every kind of name in
 * `tests/outside/listReaders.test.ts`. `--strict` ends with an error for a line that is not understood.
 */
export const READS: Partial<Readonly<Record<Algorithm, Reader>>> = {
  md5: 'md5sum',
  sha1: 'sha1sum',
  sha256: 'sha256sum',
  sha512: 'sha512sum',
  xxh64: 'xxhsum',
  xxh128: 'xxhsum',
}

/** A path or name as a shell takes it, whatever is in it (POSIX, single quotes). */
export const shellQuoted = (text: string): string => `'${text.replaceAll("'", "'\\''")}'`

/** How anybody checks a list that lies in the folder from which its names go. */
export const readingCommand = ({ algorithm, name, checkedIn }: ListToCheck): string =>
  `cd ${shellQuoted(checkedIn)} && ${READS[algorithm] ?? ''} --strict --quiet -c ${shellQuoted(name)}`

interface ListToCheck {
  readonly algorithm: Algorithm
  readonly name: string
  readonly checkedIn: string
}
