import { markOf, type CopyFacts, type MarkRule } from '../../copies/mark'
import { counted } from '../../units/quantity'

/** Where a load is beside its card: on two volumes or more, on one, only in part, or nowhere. */
export interface Whereabouts {
  readonly state: 'twice' | 'once' | 'part' | 'nowhere'
  readonly sentence: string
}

const listed = (names: readonly string[]) => new Intl.ListFormat('en-GB').format(names)

/**
 * Says where the clips of a card are already, before anybody copies or formats: `No volume has any of its 14 clips.`
 */
export function whereabouts(clips: number, copies: readonly CopyFacts[], rule: MarkRule): Whereabouts {
  const whole = copies.filter((copy) => markOf(copy, rule) >= 2).map((copy) => copy.volumeName)
  if (whole.length > 1) return { state: 'twice', sentence: `All of this is verified on ${listed(whole)} already.` }
  if (whole.length === 1)
    return { state: 'once', sentence: `All of this is verified on ${listed(whole)}, and on no other volume.` }
  const unread = copies.filter((copy) => markOf(copy, rule) === 1).map((copy) => copy.volumeName)
  if (unread.length > 0)
    return { state: 'part', sentence: `Copied to ${listed(unread)}, but not read back from the medium: not verified.` }
  const most = copies.reduce<CopyFacts | undefined>(
    (best, copy) => (copy.filesCopied > (best?.filesCopied ?? 0) && !copy.mirrorLost ? copy : best),
    undefined,
  )
  if (most)
    return {
      state: 'part',
      sentence:
        `No volume has all of it: ${most.volumeName} has ${most.filesCopied} of ` +
        `${counted(most.filesWanted, 'file')}.`,
    }
  const what = clips === 0 ? 'what is on it' : clips === 1 ? 'its clip' : `its ${counted(clips, 'clip')}`
  return { state: 'nowhere', sentence: clips > 1 ? `No volume has any of ${what}.` : `No volume has ${what}.` }
}
