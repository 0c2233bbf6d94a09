import { Trash2 } from 'lucide-react'
import type { ReactNode } from 'react'
import { Link } from 'react-router'
import { differsFromPlan, measuredSentence } from '../../../core/shoot/measured'
import { counted, formatBitRate, formatBytes, formatByteRate, formatLength } from '../../../core/units/quantity'
import { gearApi, type GearView } from '../../../contract/gear'
import { shootApi, type MeasuredMode, type MeasuredView } from '../../../contract/shoot'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { IconButton } from '../../parts/controls/IconButton'
import { useGear } from '../../trade/queries'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { OffloadForm } from './OffloadForm'
import { useMeasured } from './queries'

/** What modes, cards and raw frames really came to, beside what was stated. */
export default function Measured({ productionId }: { productionId: string }) {
  const measured = useMeasured(productionId)
  const gear = useGear()
  return (
    <Ask query={measured}>
      {(view) => <Ask query={gear}>{(book) => <Figures view={view} book={book} productionId={productionId} />}</Ask>}
    </Ask>
  )
}

interface FiguresProps {
  readonly view: MeasuredView
  readonly book: GearView
  readonly productionId: string
}

function Figures({ view, book, productionId }: FiguresProps) {
  const { modes, offload, expansion, unknownLoads } = view
  return (
    <>
      <Answer
        why={
          unknownLoads > 0 ? (
            <>
              Of {counted(unknownLoads, 'load')} nobody has said which camera filmed it:{' '}
              <Link to={`/p/${productionId}/cards`} className="text-accent underline underline-offset-4">
                say so at Cards
              </Link>
              , and its figures count here.
            </>
          ) : (
            'The middle of what loads came to is offered; what lies far off is shown and not counted.'
          )
        }
      >
        {measuredSentence(modes)}
      </Answer>
      {modes.map((mode) => (
        <ModeFigures key={mode.modeId} mode={mode} book={book} />
      ))}
      <div className="mt-8 grid gap-x-12 gap-y-8 lg:grid-cols-2">
        <section aria-label="Emptying cards">
          <h2>Emptying cards: {formatByteRate(offload.value)}</h2>
          <p className="mb-2 text-quiet">
            {offload.guessed
              ? 'A first guess, until a card was copied or a time is typed below.'
              : `The middle of ${counted(offload.of.filter((one) => !one.outlier).length, 'time')}: reader, ` +
                'drives and reading back together.'}
          </p>
          <ul>
            {offload.of.slice(0, SHOWN).map((one) => (
              <Line key={one.id} one={one}>
                {one.label}: {formatBytes(one.sizeBytes)} in {formatLength(one.seconds)},{' '}
                {formatByteRate(one.sizeBytes / one.seconds)}
              </Line>
            ))}
          </ul>
        </section>
        <section aria-label="Raw frames after export">
          <h2>Raw frames after export: {expansion.value.toFixed(2)} times</h2>
          <p className="mb-2 text-quiet">
            {expansion.guessed
              ? 'A first guess, until what a card became is typed below.'
              : `The middle of ${counted(expansion.of.filter((one) => !one.outlier).length, 'card')}.`}
          </p>
          <ul>
            {expansion.of.slice(0, SHOWN).map((one) => (
              <Line key={one.id} one={one}>
                {one.label}: {formatBytes(one.sizeBytes)} became {formatBytes(one.exportedBytes)},{' '}
                {(one.exportedBytes / one.sizeBytes).toFixed(2)} times
              </Line>
            ))}
          </ul>
        </section>
      </div>
      <OffloadForm productionId={productionId} />
    </>
  )
}

const SHOWN = 6

interface LineProps {
  readonly one: { readonly id: string; readonly label: string; readonly outlier: boolean; readonly typed: boolean }
  readonly children: ReactNode
}

/** One card that was emptied; what a person typed can be taken away again. */
function Line({ one: { id, label, outlier, typed }, children }: LineProps) {
  const remove = useSend(shootApi.removeOffload)
  return (
    <li className={`flex items-center justify-between gap-3 border-t border-rule py-1 ${outlier ? 'text-doubt' : ''}`}>
      <span className="figure">
        {children}
        {outlier && ' (far off, not counted)'}
      </span>
      {typed && (
        <IconButton
          icon={Trash2}
          label={`Take the figure of ${label} away`}
          disabled={remove.isPending}
          onClick={() => remove.mutate({ params: { id } })}
        />
      )}
    </li>
  )
}

function ModeFigures({ mode, book }: { mode: MeasuredMode; book: GearView }) {
  const send = useSend(gearApi.changeMode)
  const { learned } = mode
  const body = book.cameras.find((one) => one.id === mode.cameraId)?.modes.find((one) => one.id === mode.modeId)
  const take = () => {
    if (!body) return
    const { id, version, name, picture, audioBitsPerSecond, proxyBitsPerSecond, proxyFrame } = body
    const measuredBitsPerSecond = Math.round(learned.value)
    send.mutate({
      params: { id },
      seen: version,
      body: { name, picture, audioBitsPerSecond, proxyBitsPerSecond, proxyFrame, measuredBitsPerSecond },
    })
  }
  const most = Math.max(mode.nominal, ...learned.of.map((one) => one.bitsPerSecond))
  const share = (bits: number) => `${(bits / most) * 100}%`
  return (
    <section aria-label={`${mode.camera}, ${mode.mode}`} className="border-t border-rule py-3">
      <div className="flex flex-wrap items-baseline justify-between gap-x-6 gap-y-2">
        <h2>
          {mode.camera} <span className="font-normal">{mode.mode}</span>
        </h2>
        <p className="flex flex-wrap items-center gap-x-4 gap-y-1">
          <span>
            stated <span className="figure">{formatBitRate(mode.nominal)}</span>, used as{' '}
            <span className="figure">{formatBitRate(mode.inUse)}</span>
            {!learned.guessed && (
              <>
                , measured <strong className="figure">{formatBitRate(learned.value)}</strong>
              </>
            )}
          </span>
          {differsFromPlan(mode) && (
            <Button disabled={send.isPending} onClick={take}>
              Use {formatBitRate(learned.value)}
            </Button>
          )}
        </p>
      </div>
      <Trouble error={send.error} />
      {learned.of.length === 0 ? (
        <p className="text-sm text-quiet">No load of this mode has been scanned yet.</p>
      ) : (
        <ul className="mt-2">
          {learned.of.slice(0, SHOWN).map((one, at) => (
            <li
              key={at}
              className="grid grid-cols-[1fr_7rem] items-center gap-x-3 sm:grid-cols-[minmax(8rem,14rem)_1fr_7rem] py-0.5 text-sm"
            >
              <span className="truncate">
                {one.label} <span className="text-quiet">{one.production}</span>
              </span>
              <span className="relative h-3.5 bg-sheet max-sm:order-last max-sm:col-span-2" aria-hidden>
                <span
                  className={`absolute inset-y-0 left-0 ${one.outlier ? 'border border-dashed border-doubt' : 'bg-accent opacity-70 forced-color-adjust-none forced-colors:bg-[CanvasText]'}`}
                  style={{ width: share(one.bitsPerSecond) }}
                />
                <span className="absolute -inset-y-0.5 border-l-2 border-ink" style={{ left: share(mode.nominal) }} />
              </span>
              <span className={`figure text-right ${one.outlier ? 'text-doubt' : ''}`}>
                {formatBitRate(one.bitsPerSecond)}
                {one.outlier && <span className="block text-sm">far off</span>}
              </span>
            </li>
          ))}
        </ul>
      )}
    </section>
  )
}
