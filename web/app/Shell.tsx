import { Archive, CircleHelp, FlaskConical, Moon, Search, Sun } from 'lucide-react'
import { lazy, Suspense, useEffect, useRef, useState } from 'react'
import { Link, Outlet, ScrollRestoration, useMatch } from 'react-router'
import { Button } from '../parts/controls/Button'
import { Hint } from '../parts/layers/Hint'
import { Appeared } from './Appeared'
import { useIsOnPicture } from './desks'
import { ProductionTitle } from './ProductionTitle'
import { Notices } from './StateLine'
import { TaskTray } from './TaskTray'
import { switchTheme } from './theme'
import { useHasBench } from './useHasBench'
import { useKeptFocus } from './useKeptFocus'
import { useKeys } from './useKeys'
import { useServerEvents } from './useServerEvents'

// Palette and keys are no part of the first screen; they are fetched right after it, so that no letter is lost.
const loadPalette = () => import('./Palette')
const Palette = lazy(loadPalette)
const loadKeyHelp = () => import('./KeyHelp')
const KeyHelp = lazy(() => loadKeyHelp().then((module) => ({ default: module.KeyHelp })))
// At first there is nothing to take back.
const EditNotice = lazy(() => import('./EditNotice').then((module) => ({ default: module.EditNotice })))

function useTheme() {
  const [theme, setTheme] = useState(document.documentElement.dataset.theme)
  useEffect(() => {
    const follow = () => setTheme(document.documentElement.dataset.theme)
    window.addEventListener('yendra-theme', follow)
    return () => window.removeEventListener('yendra-theme', follow)
  }, [])
  return theme
}

/** The frame around every page: name, search, theme, help, and the work under way. */
export function Shell() {
  const connected = useServerEvents()
  const [open, setOpen] = useState<'none' | 'palette' | 'help'>('none')
  const productionId = useMatch('/p/:productionId/*')?.params.productionId
  const close = () => setOpen('none')
  useEffect(() => void Promise.all([loadPalette(), loadKeyHelp()]), [])
  const foot = useFoot()
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

interface HeadProps {
  readonly productionId: string | undefined
  readonly onFind: () => void
  readonly onHelp: () => void
}

/** Name, search, and what is there on every page. */
function Head({ productionId, onFind, onHelp }: HeadProps) {
  const theme = useTheme()
  const hasBench = useHasBench()
  const themeWords = theme === 'night' ? 'Change to day' : 'Change to night'
  return (
    <header
      className={`flex items-center justify-between gap-x-4 ${productionId ? 'h-10' : 'pt-3 pb-4'}`}
      data-screen-only
    >
      <div className="flex min-w-0 items-center gap-x-2.5">
        <Link
          to="/"
          className="flex shrink-0 items-center gap-2.5 text-lg font-bold"
          aria-label="Yendra: all productions"
        >
          <img src="/mark.svg" alt="" className="size-7" />
          {productionId === undefined && 'Yendra'}
        </Link>
        {productionId !== undefined && <ProductionTitle productionId={productionId} />}
      </div>
      <div className="flex shrink-0 items-center sm:gap-1">
        <Button
          look="plain"
          onClick={onFind}
          aria-keyshortcuts="Control+K"
          className="max-sm:!border-transparent max-sm:!px-2"
        >
          <Search className="size-4" aria-hidden />
          <span className="font-normal text-quiet max-sm:sr-only">Find anything</span>
          <kbd className="figure hidden text-quiet sm:inline" aria-hidden>
            Ctrl K
          </kbd>
        </Button>
        <Link to="/locker" className="inline-flex min-h-9 items-center gap-1.5 px-2.5 font-semibold max-sm:px-2">
          <Archive className="size-4" aria-hidden />
          <span className="max-sm:sr-only">Locker</span>
        </Link>
        {hasBench && (
          <Link
            to="/bench"
            className={`${productionId ? 'max-sm:hidden ' : ''}inline-flex min-h-9 items-center gap-1.5 px-2.5 font-semibold`}
          >
            <FlaskConical className="size-4" aria-hidden />
            <span className="max-sm:sr-only">Bench</span>
          </Link>
        )}
        <Hint words={themeWords}>
          <Button look="quiet" onClick={switchTheme} aria-label={themeWords} className="!px-2">
            {theme === 'night' ? <Sun className="size-4.5" aria-hidden /> : <Moon className="size-4.5" aria-hidden />}
          </Button>
        </Hint>
        <Hint words="Keys that work everywhere">
          <Button look="quiet" onClick={onHelp} aria-label="Keys" className="!px-2">
            <CircleHelp className="size-4.5" aria-hidden />
          </Button>
        </Hint>
      </div>
    </header>
  )
}
