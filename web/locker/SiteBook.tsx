import { SITE_WORDS } from '../../core/copies/medium'
import { counted } from '../../core/units/quantity'
import { gearApi } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { Ask } from '../parts/asking/Ask'
import { useLocker } from '../trade/queries'
import { NamedList } from './NamedList'
import { SiteSheet } from './SiteSheet'

/** Where volumes are kept. */
export function SiteBook() {
  return (
    <Ask query={useLocker()}>
      {({ sites }) => {
        const used = sites.filter((one) => one.holds !== '' && !one.away)
        return (
          <>
            <Answer why="A fire, a flood or a theft takes everything at one site. Keep copies at two sites or more.">
              {used.length === 0 ? 'No site is known yet.' : `Volumes are kept at ${counted(used.length, 'site')}.`}
            </Answer>
            <NamedList
              label="Sites"
              rows={sites}
              edit={(row, onClose) => <SiteSheet site={row} onClose={onClose} />}
              more={({ kind }) => <>{kind === null ? 'not said what kind of place' : SITE_WORDS[kind]}</>}
              put={gearApi.putSite}
            />
          </>
        )
      }}
    </Ask>
  )
}
