/** A file as a card lists it, enough to know it again without reading it. */
export interface ListedFile {
  readonly path: string
  readonly sizeBytes: number
  readonly modifiedMs: number
}

export interface KnownLoad {
  readonly id: string
  readonly files: readonly ListedFile[]
}

const identity = (file: ListedFile) => `${file.sizeBytes}|${Math.trunc(file.modifiedMs)}|${file.path}`

/**
 * Which known load a card holds: the one that shares most files (same path, size and time), since a load only grows
 * until the next format. `undefined` when nothing is shared: a new load.
 */
export function recogniseLoad(files: readonly ListedFile[], known: readonly KnownLoad[]): string | undefined {
  const here = new Set(files.map(identity))
  const scored = known.map((load) => ({ id: load.id, shared: load.files.filter((file) => here.has(identity(file))).length }))
  const best = scored.reduce<{ id: string; shared: number } | undefined>((most, one) => (one.shared > (most?.shared ?? 0) ? one : most), undefined)
  return best?.id
}
