import type { CopyRecord } from '../../../core/copies/record'
import type { Medium } from '../medium/medium'

/** One file to copy, and the destinations that still need it. */
export interface SourceFile {
  readonly id: number
  readonly path: Buffer
  readonly sizeBytes: number
  readonly modifiedMs: number
  readonly wantedBy: ReadonlySet<string>
  /** Hash of this content where it was proved before: what is read, and what lies at a destination, must be that. */
  readonly knownHash?: string
}

export interface CopyDestination {
  readonly id: string
  readonly medium: Medium
  /** The folder that mirrors the card. */
  readonly folder: Buffer
  /** A folder of this attempt on the same file system, where files wait until they are proved. */
  readonly parts: Buffer
  /**
   * What has the name of a file is bad: it is moved away the moment the good one is ready. Without this, whatever has
   * the name is compared, and stays.
   */
  readonly makeWay?: (file: SourceFile) => Promise<void>
}

/**
 * Blocks for large files, a ring and two for each destination, and one for each small file that is written or read
 * back.
 */
export interface CopyMemory {
  readonly large: readonly Uint8Array[]
  readonly writing: readonly Uint8Array[]
  readonly proving: readonly Uint8Array[]
}

export interface CopyOrder {
  readonly source: Medium
  /** Of a copy that is read: it is proved again by that, or found to differ. A card has none. */
  readonly sourceId?: string
  readonly files: readonly SourceFile[]
  /** Folders to create even when they are empty. */
  readonly folders: readonly Buffer[]
  readonly destinations: readonly CopyDestination[]
  /** Awaited between blocks: holds while paused, throws when cancelled. */
  readonly gate: () => Promise<void>
  readonly onBytes: (destinationId: string, stage: 'written' | 'proved', bytes: number) => void
  /** Memory lent to the copy; its own when none is given. */
  readonly memory?: CopyMemory
  /** Told only what is durable; what it writes down is true from then on. */
  readonly report: (records: readonly CopyRecord[]) => Promise<void>
}
