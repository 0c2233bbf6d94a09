import { fileNameOf } from '../../units/filePath'

/** How a camera calls its files: figures left out, `CURL0041.MP4` is `CURL#.MP4`. */
export const habitOf = (name: string): string => name.replaceAll(/\d+/g, '#').toUpperCase()

/** Habits of the files of a card, without folders: settings and thumbnails say as much as clips. */
export const habitsOf = (paths: readonly string[]): string[] =>
  [...new Set(paths.map((path) => habitOf(fileNameOf(path))))].sort()

/** Files that every camera may write, and that tell none from another. */
const EVERYBODYS = new Set(['#.MP#', '#.MOV', '#.WAV', '#.JPG', '#_#.MP#', 'IMG_#.MOV', 'IMG_#.JPG', 'IMG_#.MP#'])
const LEAST_SHARE = 0.5

/**
 * The camera whose earlier cards have the habits of this one: most of its habits, and no other camera as many.
 * `undefined` when none is known by them.
 */
export function cameraByHabits(
  habits: readonly string[],
  known: readonly { readonly cameraId: string; readonly habits: readonly string[] }[],
): string | undefined {
  const own = habits.filter((habit) => !EVERYBODYS.has(habit))
  const shares = known
    .map(({ cameraId, habits: theirs }) => ({ cameraId, shared: own.filter((habit) => theirs.includes(habit)).length }))
    .sort((a, b) => b.shared - a.shared)
  const [best, next] = shares
  if (!best || best.shared === 0 || best.shared < own.length * LEAST_SHARE) return undefined
  return next && next.shared === best.shared ? undefined : best.cameraId
}
