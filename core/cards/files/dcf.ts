/** Names of camera files after the design rule for camera file systems (JEITA CP-3461 / CIPA DC-009). */

export interface DcfName {
  /** The folder's number, 100–999; `undefined` outside a DCF folder. */
  readonly folder: number | undefined
  /** Four free characters: `CURL`. */
  readonly prefix: string
  /** 1–9999. */
  readonly counter: number
}

/** Reads the last two parts of a path: `DCIM/100CURLW/CURL0041.MP4` is folder 100, prefix CURL, counter 41. */
export function parseDcfName(path: string): DcfName | undefined {
  const parts = path.split('/')
  const file = /^([A-Z0-9_]{4})(\d{4})\.[A-Z0-9]+$/i.exec(parts.at(-1) ?? '')
  if (!file || Number(file[2]) === 0) return undefined
  const folder = /^([1-9]\d\d)[A-Z0-9_]{5}$/i.exec(parts.at(-2) ?? '')
  return {
    folder: folder ? Number(folder[1]) : undefined,
    prefix: (file[1] ?? '').toUpperCase(),
    counter: Number(file[2]),
  }
}
