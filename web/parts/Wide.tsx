import { getNonce } from 'get-nonce'
import { ScrollArea } from 'radix-ui'
import { useEffect, useRef, useState, type ReactNode } from 'react'

/**
 * What may be wider than the screen: it scrolls by itself, with a bar that shows that there is more, and where it does,
 * the keyboard reaches it under its name.
 */
export function Wide({ label, children, className = '' }: { label: string; children: ReactNode; className?: string }) {
  const box = useRef<HTMLDivElement>(null)
  const [scrolls, setScrolls] = useState(false)
  useEffect(() => {
    const target = box.current
    if (!target) return undefined
    const watch = new ResizeObserver(() => setScrolls(target.scrollWidth > target.clientWidth))
    watch.observe(target)
    if (target.firstElementChild) watch.observe(target.firstElementChild)
    return () => watch.disconnect()
  }, [])
  return (
    <ScrollArea.Root type="auto" className={`overflow-hidden ${className}`}>
      <ScrollArea.Viewport
        ref={box}
        role="group"
        aria-label={label}
        tabIndex={scrolls ? 0 : undefined}
        nonce={getNonce()}
        className={`w-full ${scrolls ? 'pb-3.5' : ''}`}
      >
        {children}
      </ScrollArea.Viewport>
      <ScrollArea.Scrollbar
        orientation="horizontal"
        className="flex h-3 touch-none flex-col p-0.5 select-none"
        data-screen-only
      >
        <ScrollArea.Thumb className="relative !h-full rounded-full bg-quiet" />
      </ScrollArea.Scrollbar>
    </ScrollArea.Root>
  )
}
