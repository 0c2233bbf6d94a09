/** The five steps by which somebody new takes a card from the reader to the answer, in their order. */
export const WALK = ['card', 'scan', 'copy', 'play', 'answer'] as const
export type WalkStep = (typeof WALK)[number]

/** What is true of the card that the walk goes with. */
export interface WalkFacts {
  readonly card: 'none' | 'waits' | 'being scanned'
  /** Of the load that it turned out to be; `undefined` until it was scanned. */
  readonly load:
    | {
        /** What goes on; what a copy came to is asked for after it. */
        readonly now: 'copying' | 'asking' | 'nothing'
        /** Copies that were read back and are equal. */
        readonly proved: number
        readonly isPlayed: boolean
      }
    | undefined
}

/** Where the walk is now, in words; while Yendra works, nothing is to be pressed. */
export interface WalkPlace {
  readonly step: WalkStep
  readonly isWaiting: boolean
  readonly title: string
  readonly why: string
}

const WORDS: Record<WalkStep, readonly [title: string, why: string]> = {
  card: [
    'Put a card in',
    'Write-protect it first where it has a switch. Yendra sees it by itself, and never writes to it.',
  ],
  scan: ['Scan the card', 'Everything on it is listed, and every clip is read: what is missing or broken is said.'],
  copy: ['Copy it to two drives', 'The card is read once. Both copies are read back and compared with it.'],
  play: ['Play a clip from a copy', 'One second is enough. You see with your own eyes that a copy is good.'],
  answer: [
    'Read the answer',
    'It says yes only after card and drives were scanned again. Formatting is done by you, in the camera.',
  ],
}

function stepOf({ card, load }: WalkFacts): WalkStep {
  if (!load) return card === 'none' ? 'card' : 'scan'
  if (load.proved < 2) return 'copy'
  return load.isPlayed ? 'answer' : 'play'
}

/** The step that is next, whatever was done before and in whichever order. */
export function walkPlace(facts: WalkFacts): WalkPlace {
  const step = stepOf(facts)
  const [title, why] = WORDS[step]
  if (step === 'scan' && facts.card === 'being scanned')
    return { step, isWaiting: true, title: 'It is being scanned', why: 'Nothing is to be done now.' }
  if (step === 'copy' && facts.load?.now === 'copying')
    return { step, isWaiting: true, title: 'It is being copied and read back', why: 'Nothing is to be done now.' }
  if (facts.load?.now === 'asking')
    return { step, isWaiting: true, title: 'One moment …', why: 'The records are read.' }
  return { step, isWaiting: false, title, why }
}
