import type { Difference } from './difference'

/** What became of one file on one destination, or of one side of a copy altogether. Hashes are hexadecimal digits. */
export type CopyRecord = FileRecord | SourceFailed | DestinationFailed

export type FileRecord = Proved | Mismatch | Conflict | Refused

interface OfFile {
  readonly fileId: number
  readonly destinationId: string
}

/** Read back and equal, durable under its name. `sizeBytes` and `modifiedMs` are those that the destination lists. */
export interface Proved extends OfFile {
  readonly kind: 'proved'
  readonly hash: string
  /** False when the system's cache may have answered instead of the medium. */
  readonly fromMedium: boolean
  /** Whether this run gave the file its name; otherwise it was found there and read. */
  readonly placed: boolean
  readonly sizeBytes: number
  readonly modifiedMs: number
  /** What the destination's file system tells of it beside, where it does. */
  readonly inode: string | null
  readonly changedMs: number | null
  /** Hash of its first and last 64 KiB, as they were read back. */
  readonly ends: string | null
  /** What went wrong with a first reading of it, where it took a second one. */
  readonly retried?: 'unreadable' | 'otherwise'
}

/** Other bytes were read back than written; the file got no name. When checked again: other bytes than were proved. */
export interface Mismatch extends OfFile {
  readonly kind: 'mismatch'
  readonly wanted: string
  readonly found: string
  /** How it is not what was proved, where how it lay then is known. */
  readonly difference?: Difference
}

/** Something else has the file's name. It was left as it is. */
export interface Conflict extends OfFile {
  readonly kind: 'conflict'
  readonly wanted: string
  readonly found: string
}

/** The destination cannot hold this one file: its name is too long or not allowed there, or something stands in its way. */
export interface Refused extends OfFile {
  readonly kind: 'refused'
  readonly message: string
  /** What stands where a folder is needed, as a sentence. */
  readonly inTheWay?: string
}

export interface SourceFailed {
  readonly kind: 'source-failed'
  readonly fileId: number
  readonly message: string
  /** The system’s code (`EIO` …), `differs` where it was read and is not what is known of it, `''` without one. */
  readonly code: string
}

export interface DestinationFailed {
  readonly kind: 'destination-failed'
  readonly destinationId: string
  readonly reason: 'full' | 'gone' | 'read-only' | 'refused'
  readonly message: string
  readonly missingBytes: number
}
