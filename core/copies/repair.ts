import { digestOf } from '../units/digest'
import { counted, formatBytes, formatLength } from '../units/quantity'
import { deviceRelation, type DeviceIdentity } from './device'
import { DIFFERENCE_WORDS, type Difference } from './difference'

/** A file of a copy that is not as it was proved. */
export interface AmissFile {
  readonly entryId: number
  readonly loadId: string
  readonly label: string
  readonly path: string
  readonly sizeBytes: number
  readonly volumeId: string
  /** `changed` was not read since: it may be as it was proved after all. */
  readonly standing: 'differs' | 'changed' | 'missing'
  readonly difference: Difference | null
  /** What was proved of it. */
  readonly hash: string
  /** Another file system is mounted inside its copy: what is below that is not seen. */
  readonly isCovered: boolean
}

/** A copy of such a file that stands as it was proved. */
export interface GoodCopy {
  readonly entryId: number
  readonly volumeId: string
  readonly hash: string
}

export interface RepairVolume {
  readonly id: string
  readonly name: string
  readonly connected: boolean
  readonly freeBytes: number | undefined
  readonly device: DeviceIdentity | undefined
  readonly readBytesPerSecond: number | undefined
  readonly writeBytesPerSecond: number | undefined
}

export interface RepairQuestion {
  readonly files: readonly AmissFile[]
  readonly goods: readonly GoodCopy[]
  readonly volumes: readonly RepairVolume[]
  /** Loads whose card lies in a reader, as it was copied. */
  readonly cards: ReadonlySet<string>
  /** Loads whose card was said to be formatted. */
  readonly formatted: ReadonlySet<string>
}

/** Files of one load that are mended on one volume from one place. */
export interface RepairStep {
  readonly loadId: string
  readonly label: string
  readonly volumeId: string
  readonly volumeName: string
  /** A volume with a good copy, the card, or nothing: then they are only read again. */
  readonly from: { readonly volumeId: string; readonly name: string } | 'card' | 'nothing'
  readonly entryIds: readonly number[]
  readonly sizeBytes: number
  /** Of them, files that lie there and are put aside when the good ones are ready. */
  readonly aside: number
  /** Of them, files that are read first, since nobody has read them since they were changed. */
  readonly unread: number
  /** The first few, each with what is wrong with it. */
  readonly names: readonly string[]
  /** Room that its drive lacks for all that is to be mended there: nothing is done then. */
  readonly missingBytes: number
}

/** Files that cannot be mended now, by what they wait for. */
export interface NotMended {
  readonly label: string
  readonly volumeName: string
  readonly files: number
  readonly names: readonly string[]
}

export interface RepairPlan {
  /** No good copy is known anywhere, and the card is formatted. */
  readonly lost: readonly NotMended[]
  /** Copies differ, and nothing says which is right. */
  readonly unsettled: readonly NotMended[]
  readonly steps: readonly RepairStep[]
  /** They can be mended once something is done; `wants` says what. */
  readonly waiting: readonly (NotMended & { readonly wants: string })[]
  /** `undefined` where a drive was never measured. */
  readonly seconds: number | undefined
  /** What a person who saw this plan agrees to. */
  readonly decisions: string
}

/**
 * Which content is right where proofs name several: the one that all name, else one that more than half of at least
 * three name; `undefined` where nobody could but guess.
 */
export function rightHash(hashes: readonly string[]): string | undefined {
  const counts = new Map<string, number>()
  for (const hash of hashes) counts.set(hash, (counts.get(hash) ?? 0) + 1)
  for (const [hash, count] of counts)
    if (count === hashes.length || (hashes.length >= 3 && count * 2 > hashes.length)) return hash
  return undefined
}

const NAMES = 5

const nameOf = (file: AmissFile) => {
  const name = file.path.split('/').at(-1) ?? file.path
  if (file.difference) return `${name} ${DIFFERENCE_WORDS[file.difference]}`
  return file.standing === 'changed'
    ? `${name} was changed or away since it was proved`
    : `${name} ${file.standing === 'missing' ? 'is gone' : 'is not as it was proved'}`
}

/** What can be mended, from where, and what cannot: said before anything is done. */
export function repairPlan(question: RepairQuestion): RepairPlan {
  const { files, volumes } = question
  const volumeOf = (id: string) => volumes.find((volume) => volume.id === id)
  const goods = grouped(question.goods, (good) => good.entryId)
  const wrong = { lost: [] as AmissFile[], unsettled: [] as AmissFile[], waiting: [] as (AmissFile & Wants)[] }
  const planned: { file: AmissFile; sources: readonly RepairVolume[] }[] = []
  for (const file of files) {
    const known = goods.get(file.entryId) ?? []
    const right = rightHash([file.hash, ...known.map((good) => good.hash)])
    const equal = known.filter((good) => good.hash === right && good.volumeId !== file.volumeId)
    const sources = equal.flatMap((good) => volumeOf(good.volumeId) ?? [])
    const target = volumeOf(file.volumeId)
    const here = sources.filter((volume) => volume.connected)
    const hasCard = question.cards.has(file.loadId) && right === file.hash
    const needs = (wants: string) => wrong.waiting.push({ ...file, wants })
    if (right === undefined) wrong.unsettled.push(file)
    else if (!target?.connected) needs(`you connect ${target?.name ?? 'its drive'}`)
    else if (file.isCovered) needs(`you unmount what is mounted inside the copy on ${target.name}`)
    else if (here.length > 0 || hasCard || file.standing === 'changed') planned.push({ file, sources: here })
    else if (sources[0]) needs(`you connect ${sources.map((volume) => volume.name).join(' or ')}`)
    else if (!question.formatted.has(file.loadId)) needs(`you connect the card of “${file.label}”`)
    else wrong.lost.push(file)
  }
  const steps = withRoom(stepsOf(planned, question), volumes)
  return {
    lost: told(wrong.lost, volumes),
    unsettled: told(wrong.unsettled, volumes),
    steps,
    waiting: [...grouped(wrong.waiting, (file) => file.wants)].flatMap(([wants, own]) =>
      told(own, volumes).map((one) => ({ ...one, wants })),
    ),
    seconds: secondsOf(steps, volumes),
    decisions: digestOf(
      steps.map(({ loadId, volumeId, from, entryIds, missingBytes }) =>
        [loadId, volumeId, typeof from === 'string' ? from : from.volumeId, missingBytes > 0, ...entryIds].join(' '),
      ),
    ),
  }
}

interface Wants {
  readonly wants: string
}

function grouped<Item, Key>(items: readonly Item[], keyOf: (item: Item) => Key): Map<Key, Item[]> {
  const groups = new Map<Key, Item[]>()
  for (const item of items) {
    const group = groups.get(keyOf(item))
    if (group) group.push(item)
    else groups.set(keyOf(item), [item])
  }
  return groups
}

const copyKey = (file: AmissFile) => `${file.loadId} ${file.volumeId}`

const told = (files: readonly AmissFile[], volumes: readonly RepairVolume[]): NotMended[] =>
  [...grouped(files, copyKey).values()].flatMap((own) => {
    const [first] = own
    if (!first) return []
    const volumeName = volumes.find((volume) => volume.id === first.volumeId)?.name ?? ''
    return [{ label: first.label, volumeName, files: own.length, names: own.slice(0, NAMES).map(nameOf) }]
  })

interface Planned {
  readonly file: AmissFile
  readonly sources: readonly RepairVolume[]
}

/** For each copy as few sources as possible: that which has most of its files comes first. */
function stepsOf(planned: readonly Planned[], { volumes, cards }: RepairQuestion): RepairStep[] {
  const steps: RepairStep[] = []
  for (const own of grouped(planned, ({ file }) => copyKey(file)).values()) {
    const target = volumes.find((volume) => volume.id === own[0]?.file.volumeId)
    let left = own
    for (;;) {
      const [source] = volumes
        .map((volume) => ({ volume, has: left.filter((one) => one.sources.includes(volume)).length }))
        .filter(({ has }) => has > 0)
        .sort((a, b) => b.has - a.has || rank(a.volume, target) - rank(b.volume, target))
      if (!source) break
      const taken = left.filter((one) => one.sources.includes(source.volume))
      steps.push(stepOf(taken, target, { volumeId: source.volume.id, name: source.volume.name }))
      left = left.filter((one) => !taken.includes(one))
    }
    const [first] = left
    if (first) steps.push(stepOf(left, target, cards.has(first.file.loadId) ? 'card' : 'nothing'))
  }
  return steps
}

/** Another drive first, then the faster one. */
const rank = (volume: RepairVolume, target: RepairVolume | undefined): number =>
  (target && deviceRelation({ ...volume }, { ...target }) === 'different' ? 0 : 1e15) - (volume.readBytesPerSecond ?? 0)

function stepOf(own: readonly Planned[], target: RepairVolume | undefined, from: RepairStep['from']): RepairStep {
  const files = own.map((one) => one.file)
  return {
    loadId: files[0]?.loadId ?? '',
    label: files[0]?.label ?? '',
    volumeId: target?.id ?? '',
    volumeName: target?.name ?? '',
    from,
    entryIds: files.map((file) => file.entryId),
    sizeBytes: files.reduce((sum, file) => sum + file.sizeBytes, 0),
    aside: files.filter((file) => file.standing !== 'missing').length,
    unread: files.filter((file) => file.standing === 'changed').length,
    names: files.slice(0, NAMES).map(nameOf),
    missingBytes: 0,
  }
}

/** What is put aside keeps its room: the good files need their own, on every volume of a drive together. */
function withRoom(steps: readonly RepairStep[], volumes: readonly RepairVolume[]): RepairStep[] {
  const volumeOf = (step: RepairStep) => volumes.find((volume) => volume.id === step.volumeId)
  return steps.map((step) => {
    const own = volumeOf(step)
    if (step.from === 'nothing' || own?.freeBytes === undefined) return step
    const needed = steps
      .filter((other) => {
        const volume = volumeOf(other)
        return volume && other.from !== 'nothing' && (volume === own || deviceRelation(volume, own) === 'same')
      })
      .reduce((sum, other) => sum + other.sizeBytes, 0)
    return { ...step, missingBytes: Math.max(0, needed - own.freeBytes) }
  })
}

/** A good copy is read while the new file is written, which is then read back. */
function secondsOf(steps: readonly RepairStep[], volumes: readonly RepairVolume[]): number | undefined {
  let seconds = 0
  for (const { from, volumeId, sizeBytes, missingBytes } of steps) {
    if (missingBytes > 0) continue
    const target = volumes.find((volume) => volume.id === volumeId)
    const source = typeof from === 'string' ? undefined : volumes.find((volume) => volume.id === from.volumeId)
    const [read, write] = [target?.readBytesPerSecond, target?.writeBytesPerSecond]
    if (!read || !write) return undefined
    seconds += sizeBytes / Math.min(write, source?.readBytesPerSecond ?? write) + sizeBytes / read
  }
  return seconds
}

const list = (parts: readonly string[]) => new Intl.ListFormat('en-GB').format(parts)
const sum = (some: readonly { readonly files: number }[]) => some.reduce((total, one) => total + one.files, 0)

/** The plan in one or two sentences: what is lost comes first. */
export function repairSentence(plan: RepairPlan): string {
  const { lost, unsettled, steps, waiting, seconds } = plan
  const parts: string[] = []
  if (lost.length > 0)
    parts.push(
      `${counted(sum(lost), 'file')} ${sum(lost) === 1 ? 'has' : 'have'} no good copy left anywhere: ` +
        `${list(lost.map((one) => `${one.files} of “${one.label}”`))}.`,
    )
  if (unsettled.length > 0)
    parts.push(
      `Of ${counted(sum(unsettled), 'file')} the copies differ, and nothing says which is right: nothing is done to them.`,
    )
  const fitting = steps.filter((step) => step.missingBytes === 0)
  const mended = fitting.filter((step) => step.from !== 'nothing')
  if (mended.length > 0) {
    const files = mended.reduce((total, step) => total + step.entryIds.length, 0)
    const bytes = mended.reduce((total, step) => total + step.sizeBytes, 0)
    const to = list([...new Set(mended.map((step) => step.volumeName))])
    const from = list([...new Set(mended.map((step) => fromWords(step)))])
    const time = seconds === undefined ? '' : `, about ${formatLength(Math.max(1, Math.ceil(seconds)))}`
    parts.push(`${counted(files, 'file')} on ${to} can be mended from ${from}: ${formatBytes(bytes)}${time}.`)
  }
  for (const step of new Map(steps.filter((one) => one.missingBytes > 0).map((one) => [one.volumeId, one])).values())
    parts.push(`${step.volumeName} lacks ${formatBytes(step.missingBytes)}: nothing is mended there.`)
  const read = fitting.filter((step) => step.from === 'nothing')
  if (read.length > 0)
    parts.push(
      `${counted(
        read.reduce((total, step) => total + step.entryIds.length, 0),
        'file',
      )} without another good copy can be read again: they may be whole.`,
    )
  if (waiting.length > 0) {
    const wants = list([...new Set(waiting.map((one) => one.wants))])
    const more = parts.length > 0 ? 'more ' : ''
    const on = list([...new Set(waiting.map((one) => one.volumeName))])
    parts.push(`${counted(sum(waiting), `${more}file`)} on ${on} can be mended once ${wants}.`)
  }
  return parts.join(' ') || 'Every copy is as it was proved: nothing is to be repaired.'
}

/** Where the good files of a step come from. */
export const fromWords = ({ from, label }: Pick<RepairStep, 'from' | 'label'>): string =>
  from === 'card' ? `the card of “${label}”` : from === 'nothing' ? 'nothing' : from.name
