import { counted } from '../../core/units/quantity'
import { gearApi } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { Ask } from '../parts/asking/Ask'
import { useLocker } from '../trade/queries'
import { NamedList, Rename } from './NamedList'

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
              edit={(row, onClose) => <Rename row={row} rename={gearApi.renameSite} onClose={onClose} />}
              put={gearApi.putSite}
            />
          </>
        )
      }}
    </Ask>
  )
}
