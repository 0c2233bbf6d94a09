import { Link } from 'react-router'
import { counted, formatBytes } from '../../core/units/quantity'
import { gearApi } from '../../contract/gear'
import { Answer } from '../parts/Answer'
import { Ask } from '../parts/asking/Ask'
import { useLocker } from '../trade/queries'
import { NamedList, Rename } from './NamedList'
import { NoticedFolders } from './NoticedFolders'
import { VolumeSheet } from './VolumeSheet'

/** Volumes that copies go to, and readers that cards appear in. */
export function DriveBook() {
  return (
    <Ask query={useLocker()}>
      {({ volumes, readers }) => {
        const here = volumes.filter((one) => !one.away)
        return (
          <>
            <Answer why="A volume that is put away is not offered for new copies; what lies on it counts as before. New ones are added at Storage, readers at Cards.">
              {here.length === 0
                ? 'No volume is known yet.'
                : `${counted(here.length, 'volume')}, ${counted(readers.filter((one) => !one.away).length, 'reader')}.`}
            </Answer>
            <p className="mb-4">
              <Link to="/print/labels" className="text-accent underline underline-offset-4">
                Labels for drives and cards, for printing
              </Link>
            </p>
            <h2 className="mb-1">Volumes</h2>
            <NamedList
              label="Volumes"
              rows={volumes}
              edit={(row, onClose) => <VolumeSheet volume={row} onClose={onClose} />}
              put={gearApi.putVolume}
              more={({ site, capacityBytes }) => (
                <>
                  <span className="figure">{formatBytes(capacityBytes)}</span>, {site}
                </>
              )}
            />
            <h2 className="mt-8 mb-1">Readers</h2>
            <NamedList
              label="Readers"
              rows={readers}
              edit={(row, onClose) => <Rename row={row} rename={gearApi.renameReader} onClose={onClose} />}
              put={gearApi.putReader}
              more={({ path }) => <span className="figure text-sm break-all">{path}</span>}
            />
            <NoticedFolders />
          </>
        )
      }}
    </Ask>
  )
}
