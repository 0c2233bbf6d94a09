export const device = { fileSystem: 'fs:1', disks: ['disk:a'], known: true, pastCache: true }

/** A file of a card as it is listed. */
export const listed = (name: string, sizeBytes: number, modifiedMs: number) => ({
  path: Buffer.from(name, 'latin1'),
  pathText: name.replace('\xff', '\\xff'),
  kind: name === 'link' ? ('link' as const) : ('file' as const),
  sizeBytes,
  modifiedMs,
})

/** That a file was read back. */
export const proved = (fileId: number, destinationId: string, more = {}) =>
  ({
    kind: 'proved',
    fileId,
    destinationId,
    hash: '00ff',
    fromMedium: true,
    placed: true,
    sizeBytes: 100,
    modifiedMs: 1.5,
    inode: null,
    changedMs: null,
    ends: '0e',
    ...more,
  }) as const
