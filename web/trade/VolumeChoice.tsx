import { formatBytes } from '../../core/units/quantity'
import type { VolumeKind, VolumeView } from '../../contract/storage'
import { Choice } from '../parts/controls/Choice'

/** Connected and not put away: new work may go there. */
export const isOffered = ({ connected, away }: VolumeView): boolean => connected && !away

/** The first connected volume of the preferred kind, else the first connected one. */
export const preferredVolume = (volumes: readonly VolumeView[], kind: VolumeKind): string =>
  (volumes.filter(isOffered).find((volume) => volume.kind === kind) ?? volumes.find(isOffered))?.id ?? ''

/** Chooses one of the connected volumes, with the room it has. */
export function VolumeChoice({
  label,
  volumes,
  value,
  onChange,
}: {
  label: string
  volumes: readonly VolumeView[]
  value: string
  onChange: (id: string) => void
}) {
  return (
    <Choice
      label={label}
      className="w-64"
      value={value}
      onChange={onChange}
      options={volumes
        .filter(isOffered)
        .map(({ id, name, budget }) => ({ value: id, label: `${name}, ${formatBytes(budget.freeBytes)} free` }))}
    />
  )
}
