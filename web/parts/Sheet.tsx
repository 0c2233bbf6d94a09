import { Dialog } from 'radix-ui'
import type { ReactNode } from 'react'

/** A sheet laid over the page for one small job. Closes with Escape. */
export function Sheet({
  title,
  about,
  open,
  onClose,
  children,
  width = 'max-w-lg',
}: {
  title: string
  about: string
  open: boolean
  onClose: () => void
  children: ReactNode
  width?: string
}) {
  return (
    <Dialog.Root open={open} onOpenChange={(next) => !next && onClose()}>
      <Dialog.Portal>
        <Dialog.Overlay className="fixed inset-0 z-40 bg-[rgb(10_16_19/0.55)]" />
        <Dialog.Content
          className={`fixed top-[8vh] left-1/2 z-50 max-h-[84vh] w-[calc(100vw-2rem)] -translate-x-1/2 overflow-y-auto rounded-box border border-ink bg-paper p-6 ${width}`}
        >
          <Dialog.Title asChild>
            <h2 className="mb-1 text-xl">{title}</h2>
          </Dialog.Title>
          <Dialog.Description className="mb-4 text-quiet">{about}</Dialog.Description>
          {children}
        </Dialog.Content>
      </Dialog.Portal>
    </Dialog.Root>
  )
}
