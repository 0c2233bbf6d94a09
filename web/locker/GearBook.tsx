import { Pencil, Plus } from 'lucide-react'
import { useState } from 'react'
import type { CameraKind } from '../../core/shoot/mode'
import { bitsPerSecondOf } from '../../core/shoot/mode'
import { speedSentence } from '../../core/shoot/recording'
import { frameRateLabel } from '../../core/units/frameRate'
import { frameSizeText } from '../../core/units/frameSize'
import { counted, formatBitRate, formatBytes } from '../../core/units/quantity'
import { figuresOf, gearApi, type CameraView, type ModeView } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { IconButton } from '../parts/controls/IconButton'
import { Ask } from '../parts/asking/Ask'
import { Button } from '../parts/controls/Button'
import { Empty } from '../parts/Empty'
import { useGear } from '../trade/queries'
import { CameraForm } from './CameraForm'
import { ModeForm } from './ModeForm'
import { PutAway } from './PutAway'

type Open =
  | { readonly what: 'camera'; readonly camera: CameraView | undefined }
  | { readonly what: 'mode'; readonly camera: CameraView; readonly mode: ModeView | undefined }

/** The gear book: cameras, recorders, phones and decks with the modes they record in. */
export function GearBook() {
  const [open, setOpen] = useState<Open>()
  const add = () => setOpen({ what: 'camera', camera: undefined })
  const close = () => setOpen(undefined)
  return (
    <>
      <Ask query={useGear()}>
        {({ cameras }) =>
          cameras.length === 0 ? (
            <Empty
              title="The gear book is empty."
              shows="locker"
              action={
                <Button look="primary" onClick={add}>
                  Add a camera
                </Button>
              }
            >
              Write down each camera and recorder once, with the modes you record in: every plan takes its figures from
              here.
            </Empty>
          ) : (
            <Book cameras={cameras} onAdd={add} onOpen={setOpen} />
          )
        }
      </Ask>
      {open?.what === 'camera' && <CameraForm camera={open.camera} onClose={close} />}
      {open?.what === 'mode' && <ModeForm camera={open.camera} mode={open.mode} onClose={close} />}
    </>
  )
}

const KIND_WORDS: Record<CameraKind, string> = {
  camera: 'camera',
  recorder: 'sound recorder',
  phone: 'phone',
  deck: 'tape deck',
}

function cameraWords({ kind, media, internalBytes, slots, spans, batteryMinutes }: CameraView): string {
  return [
    KIND_WORDS[kind],
    media === 'cards'
      ? `${slots === 2 ? 'two slots' : 'one slot'}, ` +
        `${spans ? 'a take goes on on the next card' : 'stops at a full card'}`
      : media === 'internal'
        ? `${formatBytes(internalBytes)} inside`
        : 'plays tapes',
    batteryMinutes > 0 ? `a battery lasts ${batteryMinutes} min` : '',
  ]
    .filter(Boolean)
    .join(', ')
}

interface BookProps {
  readonly cameras: readonly CameraView[]
  readonly onAdd: () => void
  readonly onOpen: (open: Open) => void
}

function Book({ cameras, onAdd, onOpen }: BookProps) {
  const here = cameras.filter((camera) => !camera.away)
  const bare = here.filter((camera) => camera.modes.every((mode) => mode.away))
  return (
    <>
      <Answer
        why="Plans take their figures from here. A mode that was measured is used with its measured figures."
        action={
          <Button look="primary" onClick={onAdd}>
            <Plus className="size-4" aria-hidden />
            Add a camera
          </Button>
        }
      >
        {bare.length > 0
          ? `${bare.map((camera) => camera.name).join(' and ')}: no recording mode is known yet.`
          : `${counted(here.length, 'device')} with ${counted(
              here.reduce((sum, one) => sum + one.modes.filter((mode) => !mode.away).length, 0),
              'recording mode',
            )}.`}
      </Answer>
      <div className="border-t border-ink">
        {[...cameras]
          .sort((a, b) => Number(a.away) - Number(b.away))
          .map((camera) => (
            <CameraEntry key={camera.id} camera={camera} onOpen={onOpen} />
          ))}
      </div>
    </>
  )
}

function CameraEntry({ camera, onOpen }: { camera: CameraView; onOpen: (open: Open) => void }) {
  const { name, away, modes } = camera
  return (
    <section aria-label={name} className="grid gap-x-8 gap-y-2 border-b border-rule py-3 lg:grid-cols-[19rem_1fr]">
      <div>
        <div className="flex items-center gap-1">
          <h2 className={`grow text-lg ${away ? 'text-quiet' : ''}`}>{name}</h2>
          <IconButton icon={Pencil} label={`Change ${name}`} onClick={() => onOpen({ what: 'camera', camera })} />
          <PutAway {...camera} put={gearApi.putCamera} erase={gearApi.eraseCamera} />
        </div>
        <p className="text-sm text-quiet">
          {cameraWords(camera)}
          {away && ', put away'}
        </p>
      </div>
      <div>
        <ul>
          {[...modes]
            .sort((a, b) => Number(a.away) - Number(b.away))
            .map((mode) => (
              <ModeEntry key={mode.id} mode={mode} onOpen={() => onOpen({ what: 'mode', camera, mode })} />
            ))}
        </ul>
        {!away && (
          <Button
            look="quiet"
            className="!min-h-8 !px-0"
            aria-label={`Add a mode to ${name}`}
            onClick={() => onOpen({ what: 'mode', camera, mode: undefined })}
          >
            <Plus className="size-4" aria-hidden />
            Add a mode
          </Button>
        )}
      </div>
    </section>
  )
}

/** What a mode records, in words: `3840×2160 at 25, H.264, 8 bit 4:2:0`. */
function modeWords(mode: ModeView): string {
  const { picture } = figuresOf(mode)
  if (!picture) return 'sound alone'
  const { coding, rate, codec, bitDepth, chroma } = picture
  const bits = coding.kind === 'raw' ? `${coding.bitsPerSample} bit per sample` : `${bitDepth} bit ${chroma}`
  return `${frameSizeText(picture)} at ${frameRateLabel(rate)}, ${codec}, ${bits}`
}

function ModeEntry({ mode, onOpen }: { mode: ModeView; onOpen: () => void }) {
  const bits = bitsPerSecondOf(figuresOf(mode))
  return (
    <li className="flex items-start gap-3 border-b border-rule py-1.5 last:border-0">
      <span className="min-w-0 grow">
        <span className={`font-semibold ${mode.away ? 'text-quiet' : ''}`}>{mode.name}</span>{' '}
        <span className="figure text-quiet">{formatBitRate(bits)}</span>
        {mode.measuredBitsPerSecond !== null && <span className="text-sm text-quiet"> measured</span>}
        <span className="block text-sm text-quiet">
          {modeWords(mode)}
          {mode.proxyBitsPerSecond > 0 &&
            `, a camera proxy of ${mode.proxyFrame ? `${frameSizeText(mode.proxyFrame)}, ` : ''}${formatBitRate(mode.proxyBitsPerSecond)}`}
          {mode.away ? ', put away' : `; ${speedSentence(bits).replace(/ \(.*\)$/, '')}`}
        </span>
      </span>
      <IconButton icon={Pencil} label={`Change ${mode.name}`} onClick={onOpen} />
      <PutAway id={mode.id} name={mode.name} away={mode.away} holds="plans that use it" put={gearApi.putMode} />
    </li>
  )
}
