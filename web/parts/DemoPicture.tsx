import cards from '../../docs/screenshots/cards.png'
import copies from '../../docs/screenshots/copies.png'
import exports from '../../docs/screenshots/exports.png'
import locker from '../../docs/screenshots/locker.png'
import overview from '../../docs/screenshots/overview.png'
import proxies from '../../docs/screenshots/proxies.png'
import review from '../../docs/screenshots/review.png'
import shelf from '../../docs/screenshots/shelf.png'
import shoot from '../../docs/screenshots/shoot.png'
import sorted from '../../docs/screenshots/sorted.png'
import storage from '../../docs/screenshots/storage.png'

const PICTURES = { cards, copies, exports, locker, overview, proxies, review, shelf, shoot, sorted, storage }
export type DemoPage = keyof typeof PICTURES

/** What a page looks like once there is something on it: the demo's, as the README shows it. */
export const DemoPicture = ({ of }: { of: DemoPage }) => (
  <figure className="min-w-0">
    <img
      src={PICTURES[of]}
      alt="This page in the demo"
      width={1280}
      height={800}
      className="h-auto w-full rounded-box border border-rule"
    />
    <figcaption className="mt-1.5 text-sm text-quiet">So it looks in the demo, with made-up footage.</figcaption>
  </figure>
)
