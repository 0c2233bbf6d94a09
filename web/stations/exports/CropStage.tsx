import { useEffect, useRef, type KeyboardEvent, type PointerEvent, type RefObject } from 'react'
import type { CropWindow } from '../../../core/exports/reframe'
import { cardsApi } from '../../../contract/cards'
import { addressOf } from '../../../contract/endpoint'
import { CROP, shortcutOf } from '../../parts/shortcuts'
import type { Master } from './master'

interface CropStageProps {
  readonly master: Master
  readonly atSeconds: number
  readonly window: CropWindow
  readonly zoom: number
  readonly onMove: (centre: { x: number; y: number }) => void
  readonly onZoom: (zoom: number) => void
}

const FINE_PX = 2
const COARSE_PX = 40
const STEPS = { left: [-1, 0], right: [1, 0], up: [0, -1], down: [0, 1] } as const
const ZOOM_STEP = 1.05
export const MOST_ZOOM = 4

/** A real frame of the master with the crop window on it: drag it, or move it with the keys. */
export function CropStage(props: CropStageProps) {
  const { master, atSeconds, window } = props
  const stage = useRef<HTMLDivElement>(null)
  const frame = useRef<HTMLDivElement>(null)
  const hands = useHands(props, stage, frame)
  const percent = (part: number, whole: number) => `${(100 * part) / whole}%`
  return (
    <div
      ref={stage}
      className="relative mx-auto touch-none overflow-hidden rounded-box bg-stage select-none"
      // The whole of it is in sight, with what belongs to it.
      style={{
        aspectRatio: `${master.widthPx} / ${master.heightPx}`,
        maxWidth: `calc(max(14rem, 100dvh - var(--foot, 0px) - 17rem) * ${master.widthPx / master.heightPx})`,
      }}
    >
      <img
        src={addressOf(cardsApi.picture, { id: master.clip.id })}
        alt=""
        draggable={false}
        className="absolute inset-0 size-full object-fill"
      />
      <img
        src={addressOf(cardsApi.frame, { id: master.clip.id }, { at: Number(atSeconds.toFixed(2)) })}
        alt={`A frame of ${master.clip.name}`}
        draggable={false}
        className="absolute text-[#fff] inset-0 size-full object-fill"
      />
      <div
        ref={frame}
        role="application"
        tabIndex={0}
        data-testid="crop-window"
        aria-label={
          `Crop window, ${window.widthPx} by ${window.heightPx} pixels at ${window.x}, ${window.y}. Arrow ` +
          'keys move it, plus and minus change its size.'
        }
        className="absolute cursor-move border-2 border-[#fff] shadow-[0_0_0_200vmax_rgb(8_14_17/0.62)] outline-offset-4 focus-visible:outline-[#fff]"
        style={{
          left: percent(window.x, master.widthPx),
          top: percent(window.y, master.heightPx),
          width: percent(window.widthPx, master.widthPx),
          height: percent(window.heightPx, master.heightPx),
        }}
        {...hands}
      >
        <span className="pointer-events-none absolute inset-x-0 top-0 h-[12%] border-b border-dashed border-[#fff]/70" />
        <span className="pointer-events-none absolute inset-x-0 bottom-0 h-[18%] border-t border-dashed border-[#fff]/70" />
      </div>
    </div>
  )
}

/** The window follows the pointer, the wheel and the keys. */
function useHands(
  { master, window, zoom, onMove, onZoom }: CropStageProps,
  stage: RefObject<HTMLDivElement | null>,
  frame: RefObject<HTMLDivElement | null>,
) {
  const grip = useRef<{ x: number; y: number } | undefined>(undefined)
  const centre = { x: window.x + window.widthPx / 2, y: window.y + window.heightPx / 2 }
  const inSource = (event: PointerEvent) => {
    const box = stage.current?.getBoundingClientRect()
    if (!box) return centre
    return {
      x: ((event.clientX - box.left) / box.width) * master.widthPx,
      y: ((event.clientY - box.top) / box.height) * master.heightPx,
    }
  }
  // The centre is kept where the window can follow, so that a drag past the edge does not have to be taken back.
  const moveTo = (x: number, y: number) =>
    onMove({
      x: Math.min(Math.max(x, window.widthPx / 2), master.widthPx - window.widthPx / 2),
      y: Math.min(Math.max(y, window.heightPx / 2), master.heightPx - window.heightPx / 2),
    })
  const zoomBy = (factor: number) => onZoom(Math.min(MOST_ZOOM, Math.max(1, zoom * factor)))
  useWheel(frame, (up) => zoomBy(up ? ZOOM_STEP : 1 / ZOOM_STEP))
  const letGo = () => (grip.current = undefined)
  return {
    onKeyDown: (event: KeyboardEvent) => {
      const pressed = shortcutOf(CROP, event)
      if (!pressed) return
      if (pressed === 'smaller') zoomBy(ZOOM_STEP)
      else if (pressed === 'larger') zoomBy(1 / ZOOM_STEP)
      else {
        const [across, down] = STEPS[pressed]
        const reach = event.shiftKey ? COARSE_PX : FINE_PX
        moveTo(centre.x + across * reach, centre.y + down * reach)
      }
      event.preventDefault()
    },
    onPointerDown: (event: PointerEvent) => {
      const point = inSource(event)
      grip.current = { x: point.x - centre.x, y: point.y - centre.y }
      event.currentTarget.setPointerCapture(event.pointerId)
    },
    onPointerMove: (event: PointerEvent) => {
      if (!grip.current) return
      const point = inSource(event)
      moveTo(point.x - grip.current.x, point.y - grip.current.y)
    },
    onPointerUp: letGo,
    onPointerCancel: letGo,
  }
}

/** The wheel over a box. Not passive, so that the page stays where it is while the window grows. */
function useWheel(box: RefObject<HTMLDivElement | null>, onTurn: (up: boolean) => void) {
  const turn = useRef(onTurn)
  useEffect(() => {
    turn.current = onTurn
  })
  useEffect(() => {
    const element = box.current
    const onWheel = (event: WheelEvent) => {
      event.preventDefault()
      turn.current(event.deltaY < 0)
    }
    element?.addEventListener('wheel', onWheel, { passive: false })
    return () => element?.removeEventListener('wheel', onWheel)
  }, [box])
}
