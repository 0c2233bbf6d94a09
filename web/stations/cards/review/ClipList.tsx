import { useEffect, useRef, useState } from 'react'
import { useVirtualizer } from '@tanstack/react-virtual'
import { formatLength } from '../../../../core/units/quantity'
import { cardsApi } from '../../../../contract/cards'
import { addressOf } from '../../../../contract/endpoint'
import type { ReviewClip } from '../../../../contract/review'
import { StripFrame } from '../../../parts/player/StripFrame'
import { useNextPage, type MorePages } from '../../../parts/table/usePages'
import type { Reviews } from './useReviews'
import { VERDICT_WORDS, VerdictMark } from './VerdictMark'

interface ClipListProps {
  readonly clips: readonly ReviewClip[]
  readonly pages: MorePages
  readonly current: ReviewClip | undefined
  readonly reviews: Reviews
  readonly onOpen: (clip: ReviewClip) => void
}

const ROW_PX = 60

/** The clips to look at, in the order in which they were filmed; frames pass under the pointer. */
export function ClipList({ clips, pages, current, reviews, onOpen }: ClipListProps) {
  const box = useRef<HTMLDivElement>(null)
  const virtual = useVirtualizer({
    count: clips.length,
    estimateSize: () => ROW_PX,
    getScrollElement: () => box.current,
    overscan: 6,
  })
  const items = virtual.getVirtualItems()
  useNextPage(pages, items.at(-1)?.index ?? 0, clips.length)
  const place = clips.findIndex((clip) => clip.id === current?.id)
  useEffect(() => {
    if (place >= 0) virtual.scrollToIndex(place, { align: 'auto' })
  }, [place, virtual])
  return (
    <div
      ref={box}
      role="listbox"
      aria-label="Clips"
      aria-activedescendant={current && `clip-${current.id}`}
      tabIndex={0}
      className="max-h-[34rem] overflow-y-auto border-y border-rule lg:max-h-[calc(100dvh-var(--foot,0px)-12.5rem)]"
    >
      <div className="relative" style={{ height: virtual.getTotalSize() }}>
        {items.flatMap((item) => {
          const clip = clips[item.index]
          if (!clip) return []
          const { verdict, ranges } = reviews.of(clip)
          return [
            <div
              key={clip.id}
              id={`clip-${clip.id}`}
              role="option"
              aria-selected={clip.id === current?.id}
              className={`absolute inset-x-0 top-0 flex cursor-pointer items-center gap-2.5 border-b border-rule px-1.5 ${clip.id === current?.id ? 'bg-wash shadow-[inset_3px_0_0_var(--accent)]' : 'hover:bg-sheet'}`}
              style={{ height: ROW_PX, transform: `translateY(${item.start}px)` }}
              onClick={() => onOpen(clip)}
            >
              <Frames clip={clip} />
              <span className="min-w-0 grow">
                <span className="figure line-clamp-2 text-sm leading-tight font-semibold wrap-anywhere">
                  {clip.review.name ?? clip.name}
                </span>
                <span className="mt-0.5 block truncate text-sm text-quiet">
                  {clip.trouble === null ? formatLength(clip.seconds ?? 0) : 'cannot be read'}
                  {clip.files.length > 1 && `, ${clip.files.length} files`}
                  {cardsOf(clip) > 1 && `, ${cardsOf(clip)} cards`}
                  {clip.lenses > 1 && `, ${clip.lenses} lenses`}
                  {ranges.length > 0 && `, ${ranges.length === 1 ? '1 range' : `${ranges.length} ranges`}`}
                </span>
              </span>
              <span className={verdict === 'keep' ? 'text-accent' : 'text-quiet'}>
                <span className="sr-only">
                  {verdict === null ? 'not decided' : VERDICT_WORDS[verdict].toLowerCase()}
                </span>
                <VerdictMark verdict={verdict} />
              </span>
            </div>,
          ]
        })}
      </div>
    </div>
  )
}

const cardsOf = ({ files }: ReviewClip): number => new Set(files.map(({ loadId }) => loadId)).size

/** The picture of a clip; along it the pointer moves through its frames. */
function Frames({ clip }: { clip: ReviewClip }) {
  const [share, setShare] = useState<number>()
  const size = 'h-10 w-[4.4rem] shrink-0 rounded-box'
  if (!clip.pictureMade)
    return (
      <span className={`flex items-center justify-center border border-dashed border-rule text-xs text-quiet ${size}`}>
        {clip.hasPicture ? 'no picture' : clip.isRun ? 'raw frames' : 'sound'}
      </span>
    )
  return (
    <span
      className={`relative block overflow-hidden ${size}`}
      onPointerMove={(event) => {
        const box = event.currentTarget.getBoundingClientRect()
        setShare(Math.max(0, Math.min(0.999, (event.clientX - box.left) / box.width)))
      }}
      onPointerLeave={() => setShare(undefined)}
    >
      <img
        src={addressOf(cardsApi.picture, { id: clip.id })}
        alt=""
        loading="lazy"
        className="size-full object-cover"
      />
      {share !== undefined && !clip.isRun && <StripFrame clipId={clip.id} share={share} className="absolute inset-0" />}
    </span>
  )
}
