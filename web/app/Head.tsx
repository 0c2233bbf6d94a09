import { Archive, CircleHelp, Grid2x2Check, FlaskConical, Moon, Search, Sun } from 'lucide-react'
import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { Button } from '../parts/controls/Button'
import { Hint } from '../parts/layers/Hint'
import { ProductionTitle } from './ProductionTitle'
import { switchTheme } from './theme'
import { useHasBench } from './useHasBench'

function useTheme() {
  const [theme, setTheme] = useState(document.documentElement.dataset.theme)
  useEffect(() => {
    const follow = () => setTheme(document.documentElement.dataset.theme)
    window.addEventListener('yendra-theme', follow)
    return () => window.removeEventListener('yendra-theme', follow)
  }, [])
  return theme
}

/** The sign of the house, as in `mark.svg`. */
const Emblem = () => (
  <svg viewBox="0 0 32 32" className="size-7" aria-hidden>
    <rect width="32" height="32" rx="6" fill="#0d5c75" />
    <path
      d="M7 6 16 17 25 6M16 17v9"
      fill="none"
      stroke="#f7f4ec"
      strokeWidth="3.2"
      strokeLinecap="round"
      strokeLinejoin="round"
    />
    <path d="m16 11.6 5.4 5.4-5.4 5.4-5.4-5.4z" fill="#f7f4ec" stroke="#0d5c75" strokeWidth="2" />
  </svg>
)

interface HeadProps {
  readonly productionId: string | undefined
  readonly onFind: () => void
  readonly onHelp: () => void
}

/** Name or production, search, and what is there on every page. */
export function Head({ productionId, onFind, onHelp }: HeadProps) {
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
          <Emblem />
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
        <Link to="/chart" className="inline-flex min-h-9 items-center gap-1.5 px-2.5 font-semibold max-sm:px-2">
          <Grid2x2Check className="size-4" aria-hidden />
          <span className="max-sm:sr-only">Chart</span>
        </Link>
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
