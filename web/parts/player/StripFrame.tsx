import { STRIP_FRAMES } from '../../../core/cards/review/review'
import { addressOf } from '../../../contract/endpoint'
import { reviewApi } from '../../../contract/review'

interface StripFrameProps {
  readonly clipId: string
  /** 0 is the first frame, 1 the last. */
  readonly share: number
  readonly className: string
}

/** One frame of a clip's filmstrip; moving along it asks for nothing. */
export function StripFrame({ clipId, share, className }: StripFrameProps) {
  const place = Math.min(STRIP_FRAMES - 1, Math.floor(share * STRIP_FRAMES))
  return (
    <span
      className={`block bg-stage bg-no-repeat ${className}`}
      style={{
        backgroundImage: `url(${addressOf(reviewApi.strip, { id: clipId })})`,
        backgroundSize: `${STRIP_FRAMES * 100}% 100%`,
        backgroundPosition: `${(place / (STRIP_FRAMES - 1)) * 100}% 0`,
      }}
    />
  )
}
