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

export interface CounterGap {
  readonly prefix: string
  readonly after: number
  readonly before: number
  readonly missing: number
}

/**
 * Missing counters between the clips of one prefix. The counter wraps from 9999 to 0001, so the run is taken to
 * start behind the widest hole: 9998, 9999, 0001, 0002 has no gap; 41, 42, 44 lacks one.
 */
export function counterGaps(names: readonly DcfName[]): CounterGap[] {
  return [...new Set(names.map((name) => name.prefix))].flatMap((prefix) => {
    const counters = [...new Set(names.filter((name) => name.prefix === prefix).map((name) => name.counter))].sort(
      (a, b) => a - b,
    )
    const steps = counters.map((after, at) => {
      const before = counters[(at + 1) % counters.length] ?? after
      return { prefix, after, before, missing: (before - after - 1 + 9999) % 9999 }
    })
    const widest = steps.reduce((most, step) => Math.max(most, step.missing), 0)
    const open = steps.findIndex((step) => step.missing === widest)
    return steps.filter((step, at) => at !== open && step.missing > 0)
  })
}
