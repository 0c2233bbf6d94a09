import { useEffect, useRef, useState, type ReactNode } from 'react'

/** What may be wider than the screen: it scrolls by itself, and where it does, the keyboard reaches it under its name. */
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
    <div
      ref={box}
      role="group"
      aria-label={label}
      tabIndex={scrolls ? 0 : undefined}
      className={`overflow-x-auto ${className}`}
    >
      {children}
    </div>
  )
}
