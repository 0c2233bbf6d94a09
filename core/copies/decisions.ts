import { counted } from '../units/quantity'
import type { PlannedCopy } from './plan'

/**
 * What a plan decides for one volume: all that a person agreed to who saw it. Free bytes are none of it, room enough
 * is.
 */
export interface Decision {
  readonly volumeId: string
  readonly name: string
  readonly connected: boolean
  readonly fits: boolean
  readonly keep: number
  readonly copy: number
  readonly conflict: number
  /** Of which files, and how each of them stands there. */
  readonly print: string
}

/** The decisions of a plan; `prints` by volume. */
export const decisionsOf = (
  volumes: readonly PlannedCopy[],
  prints: ReadonlyMap<string, string>,
): readonly Decision[] =>
  volumes.map(({ volumeId, name, connected, missingBytes, keep, copy, conflict }) => ({
    ...{ volumeId, name, connected, fits: missingBytes === 0 },
    ...{ keep: keep.files, copy: copy.files, conflict: conflict.files },
    print: prints.get(volumeId) ?? '',
  }))

/** What a person is shown, and names in the order: to be sent back as it is. */
export const decisionsText = (decisions: readonly Decision[]): string => JSON.stringify(decisions)

/** The decisions that such a text names; `undefined` of one that was not made here. */
export function namedDecisions(text: string): readonly Decision[] | undefined {
  let told: unknown
  try {
    told = JSON.parse(text)
  } catch {
    return undefined
  }
  return Array.isArray(told) && told.every(isDecision) ? told : undefined
}

const isDecision = (told: unknown): told is Decision => {
  if (typeof told !== 'object' || told === null) return false
  const { volumeId, name, connected, fits, keep, copy, conflict, print } = told as Record<string, unknown>
  return (
    [volumeId, name, print].every((text) => typeof text === 'string') &&
    [connected, fits].every((flag) => typeof flag === 'boolean') &&
    [keep, copy, conflict].every(Number.isSafeInteger)
  )
}

/** What is otherwise than in the plan that a person saw, in sentences; none when all of it still holds. */
export function decidedOtherwise(seen: readonly Decision[], now: readonly Decision[]): string[] {
  const lost = seen.filter((one) => !now.some(({ volumeId }) => volumeId === one.volumeId))
  const total = ({ keep, copy, conflict }: Decision) => keep + copy + conflict
  // A volume that came or went says nothing of the card.
  const [first] = now.flatMap((volume) => {
    const old = seen.find(({ volumeId, connected }) => volumeId === volume.volumeId && connected === volume.connected)
    return old ? [{ old, volume }] : []
  })
  const more = first ? total(first.volume) - total(first.old) : 0
  return [
    ...(more === 0
      ? []
      : [`The card has ${more > 0 ? counted(more, 'more file') : counted(-more, 'file') + ' fewer'}.`]),
    ...lost.map(({ name }) => `${name} is no longer part of it.`),
    ...now.flatMap((volume) => {
      const old = seen.find(({ volumeId }) => volumeId === volume.volumeId)
      return old ? volumeChanges(old, volume) : [`${volume.name} was not part of it.`]
    }),
  ]
}

function volumeChanges(old: Decision, now: Decision): string[] {
  const { name } = now
  if (old.connected !== now.connected)
    return [`${name} is ${now.connected ? 'connected now' : 'not connected any more'}.`]
  const [kept, way] = [now.keep - old.keep, now.conflict - old.conflict]
  const said = [
    ...(old.fits === now.fits ? [] : [`${name} has ${now.fits ? 'room for it now' : 'no room for it any more'}.`]),
    ...(kept === 0 ? [] : [`${name}: ${difference(kept, 'file')} there as proved.`]),
    ...(way === 0 ? [] : [`${name}: ${difference(way, 'file')} in the way.`]),
  ]
  if (said.length > 0 || old.print === now.print || old.copy !== now.copy) return said
  return [`${name}: other files than in the plan.`]
}

const difference = (by: number, what: string): string =>
  by > 0 ? counted(by, `more ${what}`) : `${counted(-by, what)} fewer`
