import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { Outlet, ScrollRestoration, useMatch } from 'react-router'
import { Appeared } from './Appeared'
import { useIsOnPicture } from './desks'
import { Head } from './Head'
import { Notices } from './StateLine'
import { TaskTray } from './TaskTray'
import { useKeptFocus } from './useKeptFocus'
import { useKeys } from './useKeys'
import { useServerEvents } from './useServerEvents'
import { useIsWalking } from './walk/walking'

// Palette and keys are no part of the first screen; they are fetched right after it, so that no letter is lost.
const loadPalette = () => import('./Palette')
const Palette = lazy(loadPalette)
const loadKeyHelp = () => import('./KeyHelp')
const KeyHelp = lazy(() => loadKeyHelp().then((module) => ({ default: module.KeyHelp })))
const FirstWalk = lazy(() => import('./walk/FirstWalk'))
// At first there is nothing to take back.
const EditNotice = lazy(() => import('./EditNotice').then((module) => ({ default: module.EditNotice })))

/** The frame around every page: name, search, theme, help, and the work under way. */
export function Shell() {
  const connected = useServerEvents()
  const [open, setOpen] = useState<'none' | 'palette' | 'help'>('none')
  const productionId = useMatch('/p/:productionId/*')?.params.productionId
  const close = () => setOpen('none')
  useEffect(() => void Promise.all([loadPalette(), loadKeyHelp()]), [])
  const foot = useFoot()
  const walking = useIsWalking()
  useKeptFocus()
  useKeys({
    productionId,
    quiet: open !== 'none',
    openPalette: () => setOpen('palette'),
    openHelp: () => setOpen('help'),
  })
  return (
    <div className="flex min-h-screen flex-col">
      <div
        className={`mx-auto flex w-full grow flex-col px-4 sm:px-6 ${useIsOnPicture() ? 'max-w-[110rem]' : 'max-w-[80rem]'}`}
      >
        <a href="#page" className="sr-only focus:not-sr-only">
          Go to the page
        </a>
        <Head productionId={productionId} onFind={() => setOpen('palette')} onHelp={() => setOpen('help')} />
        {!connected && (
          <p role="status" className="mb-3 border-l-4 border-doubt bg-sheet px-3 py-2">
            Yendra does not answer. Work under way goes on or is resumed; this page reconnects by itself.
          </p>
        )}
        <Notices />
        <Appeared />
        <main id="page" tabIndex={-1} className="grow pb-6 outline-none">
          <Outlet />
        </main>
      </div>
      <div ref={foot} className="pointer-events-none sticky bottom-0 z-30" data-screen-only>
        <div className="mx-auto max-w-[80rem]">
          <Suspense>
            <EditNotice />
          </Suspense>
        </div>
        <TaskTray />
      </div>
      {open === 'palette' && (
        <Suspense>
          <Palette onClose={close} productionId={productionId} />
        </Suspense>
      )}
      {open === 'help' && (
        <Suspense>
          <KeyHelp onClose={close} />
        </Suspense>
      )}
      {walking && (
        <Suspense>
          <FirstWalk />
        </Suspense>
      )}
      <ScrollRestoration />
    </div>
  )
}

/** The height of what stays at the foot of the window is known to whatever fills the rest of it. */
function useFoot() {
  const foot = useRef<HTMLDivElement>(null)
  useEffect(() => {
    const watch = new ResizeObserver(() =>
      document.documentElement.style.setProperty('--foot', `${foot.current?.offsetHeight ?? 0}px`),
    )
    if (foot.current) watch.observe(foot.current)
    return () => watch.disconnect()
  }, [])
  return foot
}
