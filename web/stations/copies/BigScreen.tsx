import { CircleAlert, CircleCheck, CircleHelp, LoaderCircle, Moon } from 'lucide-react'
import { useEffect, useRef } from 'react'
import { Link } from 'react-router'
import { BIG_WORDS, type BigState } from '../../../core/copies/unattended'
import { unattendedApi, type UnattendedView } from '../../../contract/unattended'
import { useServerEvents } from '../../app/useServerEvents'
import { Ask } from '../../parts/asking/Ask'
import { useAsk } from '../../parts/asking/useAsk'

const LOOKS: Record<BigState, { readonly Icon: typeof Moon; readonly tone: string }> = {
  waiting: { Icon: Moon, tone: 'text-quiet' },
  busy: { Icon: LoaderCircle, tone: 'text-ink' },
  proved: { Icon: CircleCheck, tone: 'text-good' },
  wrong: { Icon: CircleAlert, tone: 'text-stop' },
  unknown: { Icon: CircleHelp, tone: 'text-doubt' },
  unsafe: { Icon: CircleHelp, tone: 'text-doubt' },
  danger: { Icon: CircleAlert, tone: 'text-stop' },
}

const ASK_AGAIN_MS = 4000

/**
 * One state that fills the screen, readable from two metres; it tells by sound and notice when it changes. It never
 * says yes.
 */
export default function BigScreen() {
  useServerEvents()
  const query = useAsk(unattendedApi.one, {}, { refetchInterval: ASK_AGAIN_MS })
  return (
    <main className="flex min-h-screen flex-col bg-paper p-[4vw] text-ink">
      <title>{`${query.data ? BIG_WORDS[query.data.state] : 'While nobody watches'} – Yendra`}</title>
      <Ask query={query}>{(view) => <Screen view={view} />}</Ask>
    </main>
  )
}

function Screen({ view }: { view: UnattendedView }) {
  const { state, cards, unsafe, moreUnsafe, earlier, rule } = view
  useTelling(state)
  const { Icon, tone } = LOOKS[state]
  return (
    <>
      <div className="flex grow flex-col justify-center" role="status" data-state={state}>
        <Icon className={`mb-[2vw] size-[12vw] ${tone}`} strokeWidth={1.5} aria-hidden />
        <h1 className={`text-[clamp(2.25rem,8vw,9rem)] leading-[1.05] font-bold ${tone}`}>{BIG_WORDS[state]}</h1>
        <ul className="mt-[3vw] space-y-[1vw] text-[clamp(1.1rem,2.4vw,2.5rem)] leading-snug">
          {unsafe.map((one) => (
            <li key={`${one.title} ${one.sentence}`} className={one.isDanger ? 'text-stop' : 'text-doubt'}>
              <strong>{one.title}</strong>: {one.sentence}
            </li>
          ))}
          {moreUnsafe > 0 && <li className="text-doubt">and {moreUnsafe} more</li>}
          {cards.map((card) => (
            <li key={card.name}>
              <strong>{card.name}</strong>: {card.sentence}
              {card.share !== undefined && <span className="figure"> {Math.floor(card.share * 100)} %</span>}
            </li>
          ))}
          {earlier.map((one) => (
            <li key={one.label} className={one.proved ? 'text-quiet' : 'text-stop'}>
              <strong>{one.label}</strong>, taken out: {one.sentence}.
            </li>
          ))}
        </ul>
      </div>
      <p className="text-quiet">
        {rule.on
          ? 'Cards of known cameras are scanned and copied by themselves.'
          : 'The rule is off: nothing happens by itself.'}{' '}
        <Link
          to={rule.productionId ? `/p/${rule.productionId}/copies/night` : '/'}
          className="text-accent underline underline-offset-4"
        >
          Back to Yendra
        </Link>
      </p>
    </>
  )
}

/** When work ends, well or badly, a sound is made and a notice shown; not for what was so when the page was opened. */
function useTelling(state: BigState): void {
  const before = useRef(state)
  useEffect(() => {
    const changed = before.current !== state
    before.current = state
    if (!changed || state === 'busy' || state === 'waiting' || state === 'unsafe') return
    sound(state === 'proved')
    if ('Notification' in window && Notification.permission === 'granted')
      new Notification('Yendra', { body: BIG_WORDS[state], tag: 'yendra-unattended' })
  }, [state])
}

const RISING = [523, 659, 784] as const
const FALLING = [392, 311, 262] as const
const NOTE_SECONDS = 0.22

/** Three notes up when it went well, down when it did not. */
function sound(isGood: boolean): void {
  const context = new AudioContext()
  for (const [at, hertz] of (isGood ? RISING : FALLING).entries()) {
    const [tone, volume] = [context.createOscillator(), context.createGain()]
    tone.frequency.value = hertz
    volume.gain.setValueAtTime(0.25, context.currentTime + at * NOTE_SECONDS)
    volume.gain.exponentialRampToValueAtTime(0.001, context.currentTime + (at + 1) * NOTE_SECONDS)
    tone.connect(volume).connect(context.destination)
    tone.start(context.currentTime + at * NOTE_SECONDS)
    tone.stop(context.currentTime + (at + 1) * NOTE_SECONDS)
  }
  setTimeout(() => void context.close(), 2000)
}
