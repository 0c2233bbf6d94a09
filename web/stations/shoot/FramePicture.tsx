import type { Box, FramingAnswer } from '../../../core/shoot/framing'
import { guidesOf, strokesOf } from '../../../core/shoot/guides'
import type { FrameSize } from '../../../core/units/frameSize'

interface FramePictureProps {
  readonly frame: FrameSize
  readonly answers: readonly FramingAnswer[]
  readonly third: Box
  /** What all of them show. */
  readonly shared: Box | undefined
}

/** Somebody at a bench in the middle, so that the frame has a scale. */
function Sitter({ frame: { widthPx, heightPx } }: { frame: FrameSize }) {
  const unit = Math.min(widthPx, heightPx) / 10
  const [x, y] = [widthPx / 2, heightPx]
  return (
    <g fill="#8fa3a8" opacity={0.55}>
      <circle cx={x} cy={y - unit * 6.2} r={unit * 0.95} />
      <path
        d={
          `M${x - unit * 1.9} ${y - unit * 1.6} q0 ${-unit * 3.2} ${unit * 1.9} ${-unit * 3.3} ` +
          `q${unit * 1.9} ${unit * 0.1} ${unit * 1.9} ${unit * 3.3} z`
        }
      />
      <rect x={0} y={y - unit * 1.6} width={widthPx} height={unit * 0.35} opacity={0.6} />
    </g>
  )
}

/** The recorded frame to scale with the windows of its deliverables, as the guides will lie over the picture. */
export function FramePicture({ frame, answers, third, shared }: FramePictureProps) {
  const { widthPx, heightPx } = frame
  const guides = guidesOf(frame, answers)
  const unit = Math.min(widthPx, heightPx) / 100
  return (
    <figure>
      <svg
        viewBox={`0 0 ${widthPx} ${heightPx}`}
        className="max-h-[max(14rem,calc(100dvh-var(--foot,0px)-14.5rem))] w-full"
        role="img"
        aria-label={
          `The frame of ${widthPx} by ${heightPx} pixels with ` +
          `${answers.map((one) => one.to.name).join(', ') || 'no deliverable'}`
        }
      >
        <rect width={widthPx} height={heightPx} fill="#22302f" />
        <Sitter frame={frame} />
        <rect x={third.x} y={third.y} width={third.widthPx} height={third.heightPx} fill="#fff" opacity={0.08} />
        {shared && (
          <rect x={shared.x} y={shared.y} width={shared.widthPx} height={shared.heightPx} fill="#fff" opacity={0.1} />
        )}
        {guides.map((guide, at) => (
          <g key={guide.name} fill={guide.colour}>
            {strokesOf(frame, guide).map((one) => (
              <rect
                key={`${one.x} ${one.y} ${one.widthPx}`}
                x={one.x}
                y={one.y}
                width={one.widthPx}
                height={one.heightPx}
              />
            ))}
            <text
              x={guide.box.x + unit * 1.5}
              y={guide.sides === 'upright' ? heightPx - unit * 2.5 : guide.box.y + unit * 5.5 * (at + 1)}
              fontSize={unit * 4}
              fill="#fff"
            >
              {guide.name}
            </text>
          </g>
        ))}
      </svg>
      <figcaption className="mt-1.5 text-sm text-quiet">
        The brighter part is what all of them show, and the middle third. Lines differ in their dashes, too.
      </figcaption>
    </figure>
  )
}
