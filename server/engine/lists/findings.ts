import type { ListFinding } from '../../../core/copies/lists/finding'
import type { ReadList } from './readList'

/** One thing that was found; bytes as characters in `path`. */
export interface FoundLine {
  readonly kind: ListFinding
  readonly path: string
  /** Of the list; 0 for what no line names. */
  readonly line: number
  /** What the list says and what was found, such as two sums. */
  readonly detail: string
}

/** The gravest findings of each kind are kept; all are counted. */
const MOST_KEPT = 1000

/** What a check found, counted and the first of each kind kept. */
export class Findings {
  readonly kept: FoundLine[] = []
  readonly counts: Partial<Record<ListFinding, number>> = {}

  add(kind: ListFinding, path: string, line: number, detail = ''): void {
    const count = (this.counts[kind] ?? 0) + 1
    this.counts[kind] = count
    if (count <= MOST_KEPT) this.kept.push({ kind, path, line, detail })
  }

  /** Lines of a list that say nothing of a file here: the first of them, and the number of all. */
  addFaults({ faults, noLines, unknown }: Omit<ReadList, 'lines'>): void {
    for (const { kind, line, text } of faults) this.add(kind, text, line)
    this.#addMore('no-line', noLines - faults.filter(({ kind }) => kind === 'no-line').length)
    this.#addMore('unknown-algorithm', unknown - faults.filter(({ kind }) => kind === 'unknown-algorithm').length)
  }

  #addMore(kind: ListFinding, count: number): void {
    if (count > 0) this.counts[kind] = (this.counts[kind] ?? 0) + count
  }
}
