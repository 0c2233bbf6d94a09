import type { ProgressWriter } from '../../progress'

/** Whether a file of a volume is Yendra’s own: its marker, and parts that wait. */
export const isOurs = (path: string): boolean => path === '.yendra' || path.startsWith('.yendra/')

/** Tells how far a reading is. */
export function bytesRead(progress: ProgressWriter) {
  let [done, total] = [0, 0]
  const tell = () => progress.set({ done: Math.min(done, total), total, unit: 'bytes' })
  return {
    onTotal: (bytes: number) => {
      total = bytes
      tell()
    },
    onBytes: (bytes: number) => {
      done += bytes
      tell()
    },
  }
}
