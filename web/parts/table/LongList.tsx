import { useWindowVirtualizer } from '@tanstack/react-virtual'
import { useEffect, useRef, useState, type ReactNode, type RefObject } from 'react'
import { useNextPage, type MorePages } from './usePages'

interface LongListProps<Row> {
  readonly label: string
  readonly rows: readonly Row[]
  readonly rowId: (row: Row) => string
  /** About how high a row is; what opens grows by itself. */
  readonly rowPx: number
  readonly pages: MorePages
  readonly children: (row: Row) => ReactNode
}

/**
 * A list of any length that scrolls with the page: only what is in sight is drawn, and the next page comes when its end
 * is near.
 */
export function LongList<Row>({ label, rows, rowId, rowPx, pages, children }: LongListProps<Row>) {
  const list = useRef<HTMLDivElement>(null)
  const top = useTopOf(list)
  const virtual = useWindowVirtualizer({
    count: rows.length,
    estimateSize: () => rowPx,
    overscan: 6,
    scrollMargin: top,
    getItemKey: (at) => {
      const row = rows[at]
      return row === undefined ? at : rowId(row)
    },
  })
  const items = virtual.getVirtualItems()
  const { hasNextPage } = pages
  useNextPage(pages, items.at(-1)?.index ?? 0, rows.length)
  return (
    <div
      ref={list}
      role="list"
      aria-label={label}
      className="relative border-t border-ink"
      style={{ height: virtual.getTotalSize() }}
    >
      {items.flatMap((item) => {
        const row = rows[item.index]
        if (row === undefined) return []
        return [
          <div
            key={item.key}
            ref={virtual.measureElement}
            data-index={item.index}
            role="listitem"
            aria-setsize={hasNextPage ? -1 : rows.length}
            aria-posinset={item.index + 1}
            className="absolute inset-x-0 top-0"
            style={{ transform: `translateY(${item.start - virtual.options.scrollMargin}px)` }}
          >
            {children(row)}
          </div>,
        ]
      })}
    </div>
  )
}

/** How far down the page something begins, in pixels; what stands above it may grow. */
function useTopOf(box: RefObject<HTMLElement | null>): number {
  const [top, setTop] = useState(0)
  useEffect(() => {
    const measure = () => setTop((box.current?.getBoundingClientRect().top ?? 0) + window.scrollY)
    const watch = new ResizeObserver(measure)
    watch.observe(document.body)
    return () => watch.disconnect()
  }, [box])
  return top
}
