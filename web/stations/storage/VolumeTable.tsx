import { useMemo } from 'react'
import { formatBytes } from '../../../core/units/quantity'
import { hasPlug, type VolumeView } from '../../../contract/storage'
import { LetGo, LetGoSaid, useLetGo, type Letting } from '../../trade/LetGo'
import { VOLUME_WORDS } from '../../trade/volumeWords'
import { WholeTable, type WholeColumn } from '../../parts/table/WholeTable'

const bytes = (
  key: string,
  header: string,
  value: (volume: VolumeView) => number,
  tone: (volume: VolumeView) => string = () => '',
): WholeColumn<VolumeView> => ({
  ...{ key, header, value, right: true, width: 'w-30', className: 'figure' },
  cell: (volume) => <span className={tone(volume)}>{formatBytes(value(volume))}</span>,
  text: (volume) => String(value(volume)),
})

const tone = ({ budget: { state } }: VolumeView): string =>
  state === 'over' ? 'text-stop' : state === 'tight' ? 'text-doubt' : ''

const COLUMNS: readonly WholeColumn<VolumeView>[] = [
  {
    key: 'name',
    header: 'Volume',
    value: (volume) => volume.name,
    cell: (volume) => (
      <>
        <span className="font-bold">{volume.name}</span>{' '}
        <span className="text-quiet">
          {VOLUME_WORDS[volume.kind]}
          {!volume.connected && ', not connected'}
        </span>
        {volume.booksBehind && (
          <span className="block text-sm text-quiet">was away when Yendra last wrote its records to the drives</span>
        )}
        {volume.sharesDriveWith.length > 0 && (
          <span className="block text-sm text-doubt">
            same drive as {volume.sharesDriveWith.join(' and ')}: copies on both count as one
          </span>
        )}
      </>
    ),
    text: (volume) => volume.name,
  },
  {
    key: 'site',
    width: 'w-36',
    header: 'Kept at',
    className: 'text-quiet',
    value: (volume) => volume.site,
    cell: (volume) => volume.site,
    text: (volume) => volume.site,
  },
  bytes('capacity', 'Capacity', (volume) => volume.capacityBytes),
  bytes('used', 'Used', (volume) => volume.usedBytes),
  bytes('free', 'Free', ({ budget }) => budget.freeBytes),
  bytes('headroom', 'Kept free', ({ budget }) => budget.headroomBytes),
  bytes('plannable', 'Can be planned', ({ budget }) => budget.plannableBytes, tone),
]

const goColumn = (letting: Pick<Letting, 'press' | 'isPending' | 'id'>): WholeColumn<VolumeView> => ({
  key: 'go',
  header: 'Before unplugging',
  width: 'w-32',
  right: true,
  cell: (volume) =>
    volume.connected && hasPlug(volume.kind) && <LetGo letting={letting} id={volume.id} name={volume.name} short />,
})

const ROW_PX = 41

/** Every volume with its room; what can be planned is coloured where it is little or less than nothing. */
export function VolumeTable({ volumes }: { volumes: readonly VolumeView[] }) {
  const letting = useLetGo('volume')
  const { press, isPending, id } = letting
  const columns = useMemo(() => [...COLUMNS, goColumn({ press, isPending, id })], [press, isPending, id])
  const here = volumes.filter((volume) => volume.connected).map((volume) => volume.id)
  return (
    <section aria-label="Volumes" className="mt-8">
      <LetGoSaid letting={letting} here={here} />
      <WholeTable
        label="Volumes"
        columns={columns}
        rows={volumes}
        rowId={(volume) => volume.id}
        rowData={(volume) => ({ 'data-volume': volume.name })}
        rowPx={ROW_PX}
        fileName="Volumes.csv"
      />
    </section>
  )
}
