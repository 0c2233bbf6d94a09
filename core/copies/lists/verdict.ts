import { counted, formatBytes } from '../../units/quantity'
import { ALGORITHM_WORDS, type Algorithm } from './algorithm'
import { LIST_FINDINGS, type ListFinding } from './finding'
import type { ListedSum } from './readLine'

/** The sums of a file as it lies there, of each algorithm that a line may mean. */
export type FoundSums = Partial<Readonly<Record<Algorithm, string>>>

/** With what a sum fits; `undefined` when with nothing. */
export const fittingWith = ({ hash, algorithms }: ListedSum, found: FoundSums): Algorithm | undefined =>
  algorithms.find((algorithm) => found[algorithm] === hash)

/** How often each was found. Lines are counted, but for `extra`, which are files. */
export type ListCounts = Partial<Readonly<Record<ListFinding, number>>>

export interface ListChecked {
  /** Lines that name a file, a sum each. */
  readonly lines: number
  readonly equal: number
  /** Those of files that hold something: an empty file fits the list of any other folder. */
  readonly telling: number
  /** Files that were read, and their bytes. */
  readonly files: number
  readonly sizeBytes: number
  readonly found: ListCounts
  /** With which the sums that fit were made. */
  readonly algorithms: readonly Algorithm[]
  /** Names that are written otherwise here, such as with accents that are put together in another way. */
  readonly renamed: number
  /** It lists itself, as lists do that are written where they are made; no sum of that can be right. */
  readonly namesItself: boolean
  /** The last line has no end: the list may be cut. */
  readonly cut: boolean
  /** Every file was read past the cache of the system. */
  readonly fromMedium: boolean
  readonly isBag: boolean
}

/** How a folder stands against a list. */
export type ListVerdict = 'equal' | 'not-equal' | 'cannot-tell' | 'nothing-said'

/** What stands against a folder. What the list names beside it, and what it does not name, says nothing of its files. */
const AGAINST = ['different', 'unsteady', 'missing', 'unreadable', 'changed', 'no-file', 'bag'] as const

const sum = (found: ListCounts, kinds: readonly ListFinding[]) =>
  kinds.reduce((total, kind) => total + (found[kind] ?? 0), 0)

export function verdictOf({ lines, equal, telling, found, isBag }: ListChecked): ListVerdict {
  if (lines === 0 || (equal === 0 && sum(found, AGAINST) === 0)) return 'nothing-said'
  // A single line that fits shows that the list is of these files, and what its sums are made with.
  if (telling === 0 && (found.different ?? 0) > 0 && !isBag) return 'cannot-tell'
  return sum(found, [...AGAINST, 'refused', 'unknown-algorithm', 'no-line']) > 0 ? 'not-equal' : 'equal'
}

/** One sentence, and what else is to be known of it. */
export function listSentence(checked: ListChecked): { readonly sentence: string; readonly more: readonly string[] } {
  const { lines, equal, found, isBag } = checked
  const what = isBag ? 'the manifests of this bag' : 'the list'
  const more = remarks(checked)
  switch (verdictOf(checked)) {
    case 'nothing-said':
      return {
        sentence:
          lines === 0
            ? `No line of ${what} names a file with its sum, so nothing is known of this folder.`
            : `Nothing that ${what} names lies in this folder. Choose the folder of which it was made.`,
        more,
      }
    case 'cannot-tell':
      return {
        sentence:
          `${equal > 0 ? 'Only empty files fit' : `None of ${counted(lines, 'line')} fits`}: it is the wrong list, or the files have other content, which ` +
          'cannot be told apart. Look for another list, or another copy.',
        more,
      }
    case 'not-equal':
      return {
        sentence: `${against(checked)}; ${equal} of ${counted(lines, 'line')} ${equal === 1 ? 'fits' : 'fit'}.`,
        more,
      }
    default:
      return {
        sentence: `Everything that ${what} ${isBag ? 'name' : 'names'} lies here and is equal: ${allOf(found, lines, equal)}.`,
        more,
      }
  }
}

const allOf = (found: ListCounts, lines: number, equal: number) =>
  found.elsewhere ? `${equal} of ${counted(lines, 'line')}, the others are of other folders` : counted(lines, 'line')

const WORDS: Readonly<Record<ListFinding, (count: number) => string>> = {
  different: (n) => `${counted(n, 'file')} ${n === 1 ? 'has' : 'have'} other content`,
  unsteady: (n) => `${counted(n, 'file')} ${n === 1 ? 'is' : 'are'} read otherwise each time`,
  missing: (n) => `${counted(n, 'file')} ${n === 1 ? 'is' : 'are'} missing`,
  unreadable: (n) => `${counted(n, 'file')} cannot be read`,
  changed: (n) => `${counted(n, 'file')} changed while ${n === 1 ? 'it was' : 'they were'} read`,
  'no-file': (n) => `${counted(n, 'name')} ${n === 1 ? 'is' : 'are'} of something that is no file`,
  refused: (n) =>
    `${counted(n, 'name')} ${n === 1 ? 'leads' : 'lead'} out of the folder and ${n === 1 ? 'was' : 'were'} not followed`,
  'unknown-algorithm': (n) => `${counted(n, 'line')} ${n === 1 ? 'is' : 'are'} of an algorithm that is not read here`,
  'no-line': (n) => `${counted(n, 'line')} ${n === 1 ? 'is' : 'are'} not understood`,
  bag: (n) => `the bag breaks its standard in ${counted(n, 'point')}`,
  extra: (n) => `${counted(n, 'file')} in the folder ${n === 1 ? 'is' : 'are'} not named`,
  elsewhere: (n) =>
    `${counted(n, 'line')} ${n === 1 ? 'is' : 'are'} of other folders and ${n === 1 ? 'was' : 'were'} not compared`,
}

/** What one kind of finding says of so many, such as “2 files are missing”. */
export const findingWords = (kind: ListFinding, count: number): string => WORDS[kind](count)

function against({ found }: ListChecked): string {
  const parts = LIST_FINDINGS.filter((kind) => kind !== 'extra' && kind !== 'elsewhere').flatMap((kind) => {
    const count = found[kind] ?? 0
    return count > 0 ? [findingWords(kind, count)] : []
  })
  const text = new Intl.ListFormat('en-GB').format(parts)
  return text.charAt(0).toUpperCase() + text.slice(1)
}

/** What an equal sum does not show. */
const WEAK: Partial<Readonly<Record<Algorithm, string>>> = {
  crc32: 'one changed file in about four billion has the same sum',
  xxh32: 'one changed file in about four billion has the same sum',
  md5: 'somebody who wants to can make another file with the same sum',
  sha1: 'somebody who wants to can make another file with the same sum',
}

function remarks({
  files,
  sizeBytes,
  algorithms,
  found,
  renamed,
  namesItself,
  cut,
  fromMedium,
}: ListChecked): string[] {
  const made = algorithms.map((algorithm) => ALGORITHM_WORDS[algorithm])
  const weak = new Set(algorithms.flatMap((algorithm) => WEAK[algorithm] ?? []))
  return [
    files > 0 &&
      `${counted(files, 'file')}, ${formatBytes(sizeBytes)}, read ${fromMedium ? 'from the medium' : 'perhaps from the memory of this computer, since this place cannot be read past it'}.`,
    made.length > 0 &&
      `Compared by ${new Intl.ListFormat('en-GB').format(made)}${weak.size > 0 ? `: ${[...weak].join('; ')}` : ''}.`,
    found.extra && `Of ${counted(found.extra, 'more file')} in the folder the list says nothing.`,
    renamed > 0 &&
      `${counted(renamed, 'name')} ${renamed === 1 ? 'is' : 'are'} written with other bytes here, and ${renamed === 1 ? 'was' : 'were'} found all the same.`,
    namesItself && 'It names itself, with a sum from before it was whole; that line was left out.',
    cut && 'The last line has no end: the list may have been cut, and files may be missing in it.',
  ].filter((text) => typeof text === 'string' && text !== '') as string[]
}
