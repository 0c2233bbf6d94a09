import { joinPath, type Medium } from '../medium/medium'
import { setAside } from './publish'

/**
 * Moves a file of a mirror below a folder of files that were put aside, where its path is free; returns where it lies
 * then, `undefined` where there never was anything. What a cut left under both names is moved to the one that it has,
 * and what an earlier run moved is waited for: the medium may not have it yet.
 */
export async function putAside(
  medium: Medium,
  mirror: Buffer,
  path: Buffer,
  folder: string,
): Promise<Buffer | undefined> {
  const from = joinPath(mirror, path)
  const here = await medium.entry(from)
  let last: Buffer | undefined
  for (let turn = 1; ; turn += 1) {
    const to = joinPath(Buffer.from(turn === 1 ? folder : `${folder} ${turn}`), from)
    const there = await medium.entry(to)
    if (here && there && there.node !== here.node) continue
    if (!here && there) {
      last = to
      continue
    }
    if (here) last = to
    if (last !== undefined) await setAside(medium, from, last)
    return last
  }
}
