import { Command } from 'cmdk'
import { useNavigate } from 'react-router'
import { STATION_NAMES, STATIONS } from '../../core/line/stations'
import { useLoads, useProductions, useStorage } from '../parts/queries'
import { switchTheme } from './theme'

interface Entry {
  readonly group: string
  readonly name: string
  readonly more?: string
  readonly run: () => void
}

const NO_PRODUCTION = '00000000-0000-0000-0000-000000000000'

/** Every typed word must occur; names that begin with what was typed come first, then words that do. */
function closeness(value: string, typed: string): number {
  const [text, search] = [value.toLowerCase(), typed.trim().toLowerCase()]
  const words = search.split(/\s+/)
  if (!words.every((word) => text.includes(word))) return 0
  if (text.startsWith(search)) return 1
  return words.every((word) => ` ${text}`.includes(` ${word}`)) ? 0.6 : 0.3
}

/** Finds productions, stations, clips, volumes and actions by typing a few letters. */
export default function Palette({ onClose, productionId }: { onClose: () => void; productionId: string | undefined }) {
  const navigate = useNavigate()
  const { data: productions = [] } = useProductions()
  const current = productionId ?? productions[0]?.id
  const { data: loads } = useLoads(current ?? NO_PRODUCTION)
  const { data: storage } = useStorage(current ?? NO_PRODUCTION)
  const go = (path: string) => () => void navigate(path)
  const entries: Entry[] = [
    ...(current
      ? STATIONS.map((station, at) => ({
          group: 'Stations',
          name: STATION_NAMES[station],
          more: String(at + 1),
          run: go(`/p/${current}/${station}`),
        }))
      : []),
    ...productions.map((one) => ({
      group: 'Productions',
      name: one.title,
      more: one.client,
      run: go(`/p/${one.id}/${one.next.station}`),
    })),
    ...(loads ?? []).flatMap((load) =>
      load.clips.map((clip) => ({
        group: 'Clips',
        name: clip.name,
        more: load.label,
        run: go(`/p/${load.productionId}/cards`),
      })),
    ),
    ...(current
      ? (storage?.volumes ?? []).map((volume) => ({
          group: 'Volumes',
          name: volume.name,
          more: volume.site,
          run: go(`/p/${current}/storage`),
        }))
      : []),
    { group: 'Actions', name: 'All productions', more: '0', run: go('/') },
    { group: 'Actions', name: 'New production', run: go('/?new') },
    { group: 'Actions', name: 'Bench: insert cards, cause faults', run: go('/bench') },
    { group: 'Actions', name: 'Change between day and night', run: switchTheme },
  ]
  return (
    <Command.Dialog
      open
      onOpenChange={(open) => !open && onClose()}
      label="Find anything"
      filter={closeness}
      overlayClassName="fixed inset-0 z-40 bg-[rgb(10_16_19/0.55)]"
      contentClassName="fixed top-[12vh] left-1/2 z-50 w-[calc(100vw-2rem)] max-w-xl -translate-x-1/2 rounded-box border border-ink bg-paper"
    >
      <Command.Input
        placeholder="A station, a production, a clip, a volume …"
        className="w-full border-b border-rule bg-transparent px-5 py-4 text-lg outline-none"
      />
      <Command.List className="max-h-[50vh] overflow-y-auto p-2">
        <Command.Empty className="px-3 py-6 text-quiet">Nothing by that name.</Command.Empty>
        {[...new Set(entries.map((entry) => entry.group))].map((group) => (
          <Command.Group
            key={group}
            heading={group}
            className="[&_[cmdk-group-heading]]:px-3 [&_[cmdk-group-heading]]:pt-2 [&_[cmdk-group-heading]]:text-sm [&_[cmdk-group-heading]]:text-quiet"
          >
            {entries
              .filter((entry) => entry.group === group)
              .map((entry, at) => (
                <Command.Item
                  key={`${entry.name}${at}`}
                  value={`${entry.name} ${entry.more ?? ''} ${at}`}
                  onSelect={() => {
                    entry.run()
                    onClose()
                  }}
                  className="flex cursor-pointer justify-between rounded-box px-3 py-1.5 data-[selected=true]:bg-wash"
                >
                  {entry.name}
                  <span className="figure text-quiet">{entry.more}</span>
                </Command.Item>
              ))}
          </Command.Group>
        ))}
      </Command.List>
    </Command.Dialog>
  )
}
