import { withoutEscapes } from '../../copies/pathText'
import { stemOf } from '../../units/filePath'
import { fileTitle } from '../../units/fileTitle'

/** A kept clip as far as its name can be made of it. */
export interface NamedClip {
  readonly id: string
  /** As the camera named it. */
  readonly file: string
  /** The name it was given, if any. */
  readonly name: string | null
  /** ISO date of its recording, else of the shoot; empty when neither is known. */
  readonly date: string
  readonly production: string
  readonly camera: string
  readonly shot: string
  readonly load: string
}

/** A clip's name before and after. */
export interface NameChange {
  readonly id: string
  readonly file: string
  readonly from: string | null
  readonly to: string
}

/** What a pattern may hold, with what each stands for. */
export const NAME_PARTS = {
  date: 'day of recording',
  production: 'title',
  camera: 'camera, else the load',
  shot: 'shot of the list, else the clip',
  clip: 'the camera’s own name',
  load: 'name of the load',
  take: 'counts clips that would have one name',
} as const
type NamePart = keyof typeof NAME_PARTS

export const USUAL_PATTERN = '{date}_{production}_{camera}_{shot}_{take}'

const PARTS: Record<Exclude<NamePart, 'take'>, (clip: NamedClip) => string> = {
  date: (clip) => clip.date,
  production: (clip) => clip.production,
  camera: (clip) => clip.camera || clip.load,
  shot: (clip) => clip.shot || stemOf(withoutEscapes(clip.file)),
  clip: (clip) => stemOf(withoutEscapes(clip.file)),
  load: (clip) => clip.load,
}

const isPart = (name: string): name is NamePart => name in NAME_PARTS

/** What is wrong with a pattern, in words; `undefined` when names can be made by it. */
export function patternFault(pattern: string): string | undefined {
  const unknown = [...pattern.matchAll(/\{([^{}]*)\}/g)].map(([, name = '']) => name).find((name) => !isPart(name))
  if (unknown !== undefined) return `{${unknown}} means nothing. Use ${Object.keys(NAME_PARTS).join(', ')} in braces.`
  if (!/\{[a-z]+\}/.test(pattern)) return 'All clips would have one name. Put a part in braces, such as {shot}.'
  return /[{}]/.test(pattern.replaceAll(/\{[^{}]*\}/g, '')) ? 'A brace has no partner.' : undefined
}

/**
 * Names for clips in their order by a pattern that has no fault. No two clips, and none of `taken`, get one name, also
 * not by capital letters: `{take}` counts those that would, and where the pattern has none a number is put behind.
 */
export function namesBy(pattern: string, clips: readonly NamedClip[], taken: readonly string[] = []): NameChange[] {
  const used = new Set(taken.map((name) => name.toLowerCase()))
  const counts = new Map<string, number>()
  return clips.map((clip) => {
    const valueOf = (part: string, take: string) =>
      part === 'take' ? take : isPart(part) ? PARTS[part as Exclude<NamePart, 'take'>](clip).replaceAll('_', '-') : ''
    const filled = (take: string) =>
      // What is not known takes the separator behind it along.
      fileTitle(
        pattern.replaceAll(/\{([a-z]+)\}([_ -]*)/g, (_, part: string, behind: string) => {
          const value = valueOf(part, take)
          return value === '' && part !== 'take' ? '' : value + behind
        }),
      )
    const base = filled('')
    // Of a very long name the end is cut off, and with it the number, or its last digit.
    const isCut = (number: string) =>
      filled(number) === filled(`${number.slice(0, -1)}${number.endsWith('0') ? '1' : '0'}`)
    const numbered = (number: string) =>
      isCut(number) ? `${[...base].slice(0, 25).join('')}_${number}` : filled(number)
    for (let take = (counts.get(base) ?? 0) + 1; ; take += 1) {
      const to = pattern.includes('{take}')
        ? numbered(String(take).padStart(2, '0'))
        : take === 1
          ? base
          : `${base}_${take}`
      if (used.has(to.toLowerCase())) continue
      used.add(to.toLowerCase())
      counts.set(base, take)
      return { id: clip.id, file: clip.file, from: clip.name, to }
    }
  })
}
