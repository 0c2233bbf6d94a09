import { FileDown } from 'lucide-react'
import { useState } from 'react'
import { DESTINATIONS } from '../../../core/exports/destination'
import {
  framingAnswer,
  framingSentence,
  middleThird,
  sharedWindow,
  type FramingAnswer,
} from '../../../core/shoot/framing'
import { guidesOf, guidesSvg } from '../../../core/shoot/guides'
import type { PlanBudget } from '../../../core/shoot/plan'
import { frameSizeText, parseFrameSize, readFrameSize, type FrameSize } from '../../../core/units/frameSize'
import { Answer } from '../../parts/Answer'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { UnitField } from '../../parts/controls/UnitField'
import { saveBytes, saveText } from '../../parts/save'
import { Tick } from '../../parts/controls/Tick'
import { Trouble } from '../../parts/Trouble'
import { FramePicture } from './FramePicture'
import { guidePicture } from './guidePicture'
import { WithBudget } from './WithBudget'

const MOST_PX = 8192
const LEAST_PX = 64

/** Which deliverables can be cut from a recording, and how wide to frame for them. */
export default function Framing({ productionId }: { productionId: string }) {
  return <WithBudget productionId={productionId}>{(budget) => <Desk frames={plannedFrames(budget)} />}</WithBudget>
}

interface PlannedFrame extends FrameSize {
  readonly words: string
}

/** Frames of the plan, the largest first; UHD where nothing is planned. */
function plannedFrames({ cameras }: PlanBudget): PlannedFrame[] {
  const found = new Map<string, PlannedFrame>()
  for (const { camera, rows } of cameras)
    for (const { mode } of rows)
      if (mode.picture) {
        const { widthPx, heightPx } = mode.picture
        const size = frameSizeText(mode.picture)
        const before = found.get(size)?.words
        const words =
          before === undefined
            ? `${size}, ${camera.name}`
            : before.includes(camera.name)
              ? before
              : `${before}, ${camera.name}`
        found.set(size, { widthPx, heightPx, words })
      }
  const frames = [...found.values()].sort((a, b) => b.widthPx * b.heightPx - a.widthPx * a.heightPx)
  return frames.length > 0 ? frames : [{ widthPx: 3840, heightPx: 2160, words: '3840×2160' }]
}

const OTHER = 'other'

function Desk({ frames }: { frames: readonly PlannedFrame[] }) {
  const [choice, setChoice] = useState(frames[0] ? frameSizeText(frames[0]) : OTHER)
  const [typed, setTyped] = useState('3840×2160')
  const [wanted, setWanted] = useState<readonly string[]>(['wide-watch', 'tall-short', 'square-feed'])
  const frame = choice === OTHER ? usable(parseFrameSize(typed)) : parseFrameSize(choice)
  const answers = frame ? DESTINATIONS.filter((to) => wanted.includes(to.id)).map((to) => framingAnswer(frame, to)) : []
  const toggle = (id: string, checked: boolean) =>
    setWanted(checked ? [...wanted, id] : wanted.filter((one) => one !== id))
  return (
    <>
      <Answer
        slim
        why="A take that serves several frames is filmed wider than usual, in the largest frame, with the subject in the middle third and hands in front of the body."
        action={frame && answers.length > 0 && <SaveGuides frame={frame} answers={answers} />}
      >
        {frame ? framingSentence(answers) : 'Type a frame of 64 to 8192 pixels per side.'}
      </Answer>
      <div className="grid gap-x-8 gap-y-5 lg:grid-cols-[1fr_22rem]">
        {frame && (
          <FramePicture frame={frame} answers={answers} third={middleThird(frame)} shared={sharedWindow(answers)} />
        )}
        <div>
          <Choice
            label="Recorded frame"
            className="mb-5"
            value={choice}
            onChange={setChoice}
            options={[
              ...frames.map((one) => ({ value: frameSizeText(one), label: one.words })),
              { value: OTHER, label: 'another frame …' },
            ]}
          />
          {choice === OTHER && (
            <UnitField
              label="Frame size"
              unit="frameSize"
              typed={typed}
              wrong={!('fault' in readFrameSize(typed)) && frame === undefined}
              value={typed}
              onChange={(event) => setTyped(event.target.value)}
            />
          )}
          <fieldset>
            <legend className="mb-1.5 text-sm font-semibold">Delivered as</legend>
            <ul>
              {DESTINATIONS.map((to) => {
                const answer = answers.find((one) => one.to.id === to.id)
                return (
                  <li key={to.id} className="border-t border-rule py-2">
                    <Tick checked={wanted.includes(to.id)} onChange={(checked) => toggle(to.id, checked)}>
                      <span className="font-semibold">{to.name}</span>{' '}
                      <span className="figure text-quiet">{frameSizeText(to)}</span>
                      {answer && (
                        <span className={`block text-sm ${answer.invented ? 'text-stop' : ''}`}>{answer.sentence}</span>
                      )}
                    </Tick>
                  </li>
                )
              })}
            </ul>
          </fieldset>
        </div>
      </div>
    </>
  )
}

const usable = (frame: FrameSize | undefined): FrameSize | undefined =>
  frame && Math.min(frame.widthPx, frame.heightPx) >= LEAST_PX && Math.max(frame.widthPx, frame.heightPx) <= MOST_PX
    ? frame
    : undefined

function SaveGuides({ frame, answers }: { frame: FrameSize; answers: readonly FramingAnswer[] }) {
  const [state, setState] = useState<'rest' | 'painting' | Error>('rest')
  const guides = guidesOf(frame, answers)
  const name = `guides ${frame.widthPx}x${frame.heightPx}`
  const paint = async () => {
    setState('painting')
    try {
      saveBytes(`${name}.png`, await guidePicture({ frame, guides }), 'image/png')
      setState('rest')
    } catch (trouble) {
      setState(trouble instanceof Error ? trouble : new Error(String(trouble)))
    }
  }
  return (
    <>
      <Button look="primary" disabled={state === 'painting'} onClick={() => void paint()}>
        <FileDown className="size-4" aria-hidden />
        {state === 'painting' ? 'Painting …' : 'Guides as PNG'}
      </Button>
      <Button onClick={() => saveText(`${name}.svg`, guidesSvg(frame, guides), 'image/svg+xml')}>
        <FileDown className="size-4" aria-hidden />
        As SVG
      </Button>
      {state instanceof Error && <Trouble error={state} />}
    </>
  )
}
