import { array, boolean, mixed, number, object, string, type InferType } from 'yup'
import type { CopyPlan } from '../core/copies/plan'
import type { Station } from '../core/line/stations'
import { CHECK_WAYS, checkOrder } from './copies'
import { renderOrder } from './exports'
import { verifyOrder, writeListOrder } from './lists'
import { bagOrder } from './shelf'
import type { Topic } from './topics'

const id = () => string().uuid().required()

/**
 * What is read again by itself: what may have been replaced, what is due by the age of its proof, and a sample when a
 * drive was connected.
 */
const OWN_CHECKS = ['doubted', 'cycle', 'start'] as const

/** Everything that is known of a kind of task without running one. A kind's work stands in `server/jobs/<station>/`. */
export const TASK_KINDS = {
  scan: {
    station: 'cards',
    line: 'files',
    topics: ['cards', 'productions', 'copies'],
    input: object({
      readerId: id(),
      productionId: id(),
      label: string().defined(),
      /** What is on it is copied afterwards. */
      copy: boolean().optional(),
    }),
    subject: (input: { readerId: string }) => input.readerId,
  },
  /** Follows a scan by itself where files do not say how they are scanned. */
  measure: {
    station: 'cards',
    line: 'pictures',
    topics: ['cards', 'proxies', 'exports'],
    input: object({ loadId: id(), readerId: id() }),
    subject: (input: { loadId: string }) => input.loadId,
  },
  /** Reads every packet of a clip to count its frames, when somebody asks. */
  count: {
    station: 'cards',
    line: 'pictures',
    topics: ['cards'],
    input: object({ clipId: id() }),
    subject: (input: { clipId: string }) => input.clipId,
  },
  /** Makes a small film of a clip that browsers cannot play. */
  preview: {
    station: 'cards',
    line: 'pictures',
    topics: ['review', 'copies'],
    input: object({ clipId: id() }),
    subject: (input: { clipId: string }) => input.clipId,
  },
  /** Brings the sorted view of a production up to date, or takes its last change back. */
  sort: {
    station: 'cards',
    line: 'files',
    topics: ['review', 'storage', 'productions'],
    input: object({ productionId: id(), undo: boolean().required() }),
    subject: (input: { productionId: string }) => input.productionId,
  },
  copy: {
    station: 'copies',
    line: 'files',
    topics: ['copies', 'productions', 'storage', 'proxies', 'exports', 'bench', 'cards'],
    input: object({
      loadId: id(),
      volumeIds: array().of(id()).required(),
      setAside: boolean().required(),
      /** The volume whose proved copy is read; the card where there is none. */
      from: string().uuid().nullable().optional(),
      /** What it was to do when it was ordered, and whether a person saw that. */
      plan: mixed<CopyPlan>().optional(),
      seen: boolean().optional(),
    }),
    subject: (input: { loadId: string }) => input.loadId,
  },
  check: {
    station: 'copies',
    line: 'files',
    topics: ['copies', 'productions'],
    input: checkOrder.concat(
      object({
        loadId: id(),
        seed: string().required(),
        how: string()
          .oneOf([...CHECK_WAYS, ...OWN_CHECKS] as const)
          .required(),
        /** What is read at most, and until when, as an ISO time: of what is read by itself. */
        mostBytes: number().min(0).optional(),
        until: string().optional(),
      }),
    ),
    subject: (input: { loadId: string }) => input.loadId,
  },
  /** Reads a card with the content of a load whole, its own or a second one, and compares it with what was proved. */
  twin: {
    station: 'copies',
    line: 'files',
    topics: ['copies', 'productions'],
    input: object({ loadId: id(), twinId: string().uuid().nullable().default(null) }),
    subject: (input: { loadId: string; twinId: string | null }) => input.twinId ?? input.loadId,
  },
  /** Mends files of copies from other copies, after a person's yes. */
  repair: {
    station: 'copies',
    line: 'files',
    topics: ['copies', 'productions', 'storage', 'chart'],
    input: object({
      steps: array()
        .of(
          object({
            loadId: id(),
            volumeId: id(),
            /** The volume whose copy is read; the card where there is none. */
            from: string().uuid().nullable().default(null),
            /** No good copy is known: they are only read again. */
            onlyRead: boolean().default(false),
            entryIds: array().of(number().integer().required()).required(),
          }),
        )
        .required(),
    }),
    subject: () => 'repair',
  },
  /** Reckons lines of the chart anew, as after another rule for many loads. */
  chart: {
    station: 'copies',
    line: 'pictures',
    topics: ['chart'],
    input: object({}),
    subject: () => 'chart',
  },
  /** Compares a folder with a checksum list, whoever wrote it. */
  verify: {
    station: 'copies',
    line: 'files',
    topics: ['lists'],
    input: verifyOrder,
    subject: (input: InferType<typeof verifyOrder>) => `${input.folder}\n${input.list}`,
  },
  /** Reads a folder and writes a checksum list of it. */
  list: {
    station: 'copies',
    line: 'files',
    topics: ['lists'],
    input: writeListOrder,
    subject: (input: InferType<typeof writeListOrder>) => `${input.folder}\n${input.algorithm} ${input.where}`,
  },
  proxy: {
    station: 'proxies',
    line: 'pictures',
    topics: ['proxies', 'productions', 'storage'],
    input: object({ clipId: id(), volumeId: id() }),
    subject: (input: { clipId: string }) => input.clipId,
  },
  /** Compares proxies with their originals: those that are to be checked, also by itself at night, or all. */
  recheck: {
    station: 'proxies',
    line: 'pictures',
    topics: ['proxies', 'productions'],
    input: object({ productionId: id(), all: boolean().optional() }),
    subject: (input: { productionId: string }) => input.productionId,
  },
  /** A few seconds of some clips are coded, to know what a batch of proxies will have. */
  estimate: {
    station: 'proxies',
    line: 'pictures',
    topics: ['proxies'],
    input: object({ productionId: id() }),
    subject: (input: { productionId: string }) => input.productionId,
  },
  render: {
    station: 'exports',
    line: 'pictures',
    topics: ['exports', 'productions', 'storage'],
    input: renderOrder,
    subject: (input: InferType<typeof renderOrder>) =>
      `${input.clipId} ${input.destinationId} ${input.volumeId} ` +
      `${Object.values(input.window).join(' ')} ${input.fields} ${input.colours} ${input.soundTrack}`,
  },
  bag: {
    station: 'shelf',
    line: 'files',
    topics: ['shelf', 'productions', 'storage'],
    input: bagOrder,
    subject: (input: InferType<typeof bagOrder>) => `${input.deliverableId} ${input.volumeId}`,
  },
} as const satisfies Record<
  string,
  {
    station: Station
    line: 'files' | 'pictures'
    topics: readonly Topic[]
    input: { validateSync(value: unknown): unknown }
    subject: (input: never) => string
  }
>

export type TaskKind = keyof typeof TASK_KINDS
export type TaskInput<K extends TaskKind> = InferType<(typeof TASK_KINDS)[K]['input']>
/** Tasks of one line run one after the other; lines run side by side. */
export const TASK_LINES = ['files', 'pictures'] as const
