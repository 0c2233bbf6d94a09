import { Footprints } from 'lucide-react'
import { useLocation } from 'react-router'
import { Button } from '../parts/controls/Button'
import { Sheet } from '../parts/layers/Sheet'
import { CROP, EVERYWHERE, FOLDERS, PLAYER, REVIEW, SAMPLE, TABLE, type Shortcuts } from '../parts/shortcuts'
import { startWalk } from './walk/walking'

/** Keys of what a page has, by its address. */
const OF_PAGES: readonly { readonly title: string; readonly page: RegExp; readonly keys: Shortcuts }[] = [
  { title: 'Review', page: /\/cards\/review$/, keys: { ...PLAYER, ...REVIEW } },
  { title: 'Folders of the sorted view', page: /\/cards\/sorted$/, keys: FOLDERS },
  { title: 'Sample of a copy', page: /\/copies$/, keys: SAMPLE },
  { title: 'Crop window', page: /\/exports$/, keys: CROP },
  { title: 'Table', page: /\/(cards|storage|shelf)$/, keys: TABLE },
]

/** The list of keys: those of the page that is open, then those that work everywhere. */
export function KeyHelp({ onClose }: { onClose: () => void }) {
  const { pathname } = useLocation()
  const here = OF_PAGES.filter(({ page }) => page.test(pathname))
  return (
    <Sheet title="Keys" about="Everything works without a mouse." open onClose={onClose}>
      <p className="mb-6">
        <Button
          onClick={() => {
            startWalk()
            onClose()
          }}
        >
          <Footprints className="size-4" aria-hidden />
          Start here: from a card to the answer in five steps
        </Button>
      </p>
      {[...here, { title: 'Everywhere', keys: EVERYWHERE }].map(({ title, keys }) => (
        <section key={title} aria-label={title} className="mb-6 last:mb-0">
          <h3 className="mb-2 font-bold">{title}</h3>
          <KeyList keys={keys} />
        </section>
      ))}
    </Sheet>
  )
}

const KeyList = ({ keys: all }: { keys: Shortcuts }) => (
  <dl className="grid grid-cols-[7rem_1fr] gap-x-4 gap-y-2">
    {Object.entries(all).map(([name, { shown, what }]) => (
      <div key={name} className="contents">
        <dt className="figure">{shown}</dt>
        <dd>{what}</dd>
      </div>
    ))}
  </dl>
)
