import { Link } from 'react-router'
import { knownAnswers, type KnownPlace } from '../../core/line/known'
import type { Station } from '../../core/line/stations'
import { formatBytes } from '../../core/units/quantity'
import type { ProductionView } from '../../contract/productions'
import { Answer } from '../parts/Answer'

interface KnownStationProps {
  readonly production: ProductionView
  readonly station: Exclude<Station, 'storage'>
}

/** A station of a finished production of which nothing was read here: what the records know, and what can be done. */
export function KnownStation({ production: { id, known, shootOn }, station }: KnownStationProps) {
  const places = known ?? []
  const { sentence, why } = knownAnswers(places, shootOn)[station]
  const drives = [...new Map(places.map((place) => [place.volumeId, place])).values()]
  return (
    <>
      <Answer why={why} action={<Steps id={id} isThere={drives.some((drive) => drive.connected)} />}>
        {sentence}
      </Answer>
      <h2 className="mb-1 text-xl">Where it lies, by the records</h2>
      <ul className="border-t border-ink">
        {drives.map((drive) => (
          <li
            key={drive.volumeId}
            className="grid gap-x-6 gap-y-1 border-b border-rule py-3 md:grid-cols-[10rem_12rem_1fr]"
          >
            <span className="font-bold">{drive.name}</span>
            <span className="text-quiet">{drive.site}</span>
            <span>
              {classesOn(places, drive.volumeId)}
              <span className="block text-quiet">
                {drive.connected ? 'It is connected.' : 'It is not connected: fetch it and plug it in.'}
              </span>
            </span>
          </li>
        ))}
      </ul>
    </>
  )
}

/** `1.12 TB of originals, 377 GB generated, 22.0 GB of outputs` */
const classesOn = (places: readonly KnownPlace[], volumeId: string) =>
  places
    .filter((place) => place.volumeId === volumeId)
    .map(
      ({ byteClass, sizeBytes }) =>
        `${formatBytes(sizeBytes)} ${byteClass === 'generated' ? byteClass : `of ${byteClass}`}`,
    )
    .join(', ')

const look = 'inline-flex min-h-9 items-center rounded-box border px-3.5 py-1 font-semibold'

function Steps({ id, isThere }: { id: string; isThere: boolean }) {
  const [main, other] = ['border-accent bg-accent text-accent-ink', 'border-rule bg-sheet text-ink']
  return (
    <>
      <Link to={`/p/${id}/cards?scan`} className={`${look} ${isThere ? main : other}`}>
        Scan its folder as a card
      </Link>
      <Link to={`/p/${id}/storage`} className={`${look} ${isThere ? other : main}`}>
        Where its drives are
      </Link>
    </>
  )
}
