import { counted, formatBytes, formatLength } from '../units/quantity'
import { CARD_STATE_WORDS } from './gear'
import type { CameraBudget, PlanBudget } from './plan'

export interface CarryLine {
  readonly what: string
  readonly more: string
  /** It is not in the gear book yet, or may not be used. */
  readonly open: boolean
}

export interface CarryGroup {
  readonly title: string
  readonly lines: readonly CarryLine[]
}

/** Batteries for what a camera records: as long as they last, and one more. */
export const batteriesFor = (seconds: number, batteryMinutes: number): number =>
  Math.ceil(seconds / 60 / batteryMinutes - 1e-9) + 1

const line = (what: string, more = '', open = false): CarryLine => ({ what, more, open })

function cardLines({ camera, cards, missing, missingBytes }: CameraBudget): CarryLine[] {
  return [
    ...cards.map(({ card, trouble, spare }) =>
      line(
        card.name,
        trouble === 'too-slow'
          ? `too slow for ${camera.name}: leave it at home`
          : trouble === 'not-clear'
            ? CARD_STATE_WORDS[card.state]
            : trouble === 'promised'
              ? `planned for ${card.promisedTo ?? ''} on the same day`
              : `${formatBytes(card.capacityBytes)}, ${spare ? `spare for ${camera.name}` : `into ${camera.name}`}`,
        trouble !== undefined,
      ),
    ),
    ...(missing > 0
      ? [
          line(
            `${counted(missing, 'card')} of ${formatBytes(missingBytes)}`,
            `still to be found for ${camera.name}`,
            true,
          ),
        ]
      : []),
  ]
}

/** A device, and batteries where it is known how long one lasts. */
const deviceLine = ({ camera, seconds, rows }: CameraBudget): CarryLine =>
  line(
    camera.name,
    [
      rows.map((row) => row.mode.name).join(', '),
      camera.batteryMinutes > 0 ? counted(batteriesFor(seconds, camera.batteryMinutes), 'battery', 'batteries') : '',
    ]
      .filter(Boolean)
      .join('; '),
  )

/** What goes into the bag, by name. */
export function carryList({ cameras, tapeSeconds }: PlanBudget): CarryGroup[] {
  const of = (kinds: readonly string[]) => cameras.filter((one) => kinds.includes(one.camera.kind))
  const groups: CarryGroup[] = [
    { title: 'Cards', lines: cameras.flatMap(cardLines) },
    { title: 'Cameras', lines: of(['camera', 'phone']).map(deviceLine) },
    { title: 'Sound', lines: of(['recorder']).map(deviceLine) },
    {
      title: 'Tape',
      lines: [
        ...of(['deck']).map(deviceLine),
        ...(tapeSeconds > 0
          ? [line(`Tapes of ${formatLength(tapeSeconds)} in all`, 'capture takes as long as the tape')]
          : []),
      ],
    },
    {
      title: 'For the evening',
      lines: [line('Card reader and its cable'), line('Two drives for two copies', 'they travel apart')],
    },
  ]
  return groups.filter((group) => group.lines.length > 0)
}

/** The usual cautions. Common practice, no source; local rules and the maker’s instructions decide. */
export const CAUTIONS: readonly string[] = [
  'No card is formatted on the job: take enough, and prove them at home.',
  'Lithium batteries on flights, drones, ladders, lamps, and mains near water: follow local rules ' +
    'and the maker’s or operator’s instructions; where a licence or a qualified person is required, use one.',
  'Filming people, places and music needs permission: local law and the licence decide.',
]

/** The list in one sentence. */
export function carrySentence(groups: readonly CarryGroup[]): string {
  const lines = groups.flatMap((group) => group.lines)
  const open = lines.filter((one) => one.open).length
  if (lines.length === 0) return 'Nothing is planned yet.'
  return open === 0
    ? `Everything on the list is in the gear book: ${counted(lines.length, 'thing')}.`
    : `${counted(open, 'thing')} on the list ${open === 1 ? 'is' : 'are'} not ready.`
}
