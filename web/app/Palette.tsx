import { Command } from 'cmdk'
import { Dialog } from 'radix-ui'
import { useDeferredValue, useState } from 'react'
import { useNavigate } from 'react-router'
import { STATION_NAMES, STATIONS } from '../../core/line/stations'
import { searchApi, type SearchHit } from '../../contract/search'
import { Overlay } from '../parts/layers/Sheet'
import { useAsk } from '../parts/asking/useAsk'
import { useProductions } from '../trade/queries'
import { DESKS } from './desks'
import { switchTheme } from './theme'
import { useHasBench } from './useHasBench'

interface Entry {
  readonly group: string
  readonly name: string
  readonly more?: string
  readonly run: () => void
}

const GROUPS: Record<SearchHit['kind'], string> = { production: 'Productions', clip: 'Clips', volume: 'Volumes' }

const wordsOf = (text: string) =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)

/** Whether each typed word begins a word of the name, as the server searches. */
const begins = (name: string, typed: string) =>
  wordsOf(typed).every((word) => wordsOf(name).some((one) => one.startsWith(word)))

const keyOf = (entry: Entry, at: number) => `${entry.group} ${entry.name} ${at}`

/** Finds productions, stations, clips, volumes and actions by typing a few letters. */
export default function Palette({ onClose, productionId }: { onClose: () => void; productionId: string | undefined }) {
  const [typed, setTyped] = useState('')
  const [chosen, setChosen] = useState<string>()
  const entries = useEntries(typed, productionId)
  const keys = entries.map(keyOf)
  return (
    <Overlay onClose={onClose} className="top-[12vh] max-w-xl">
      <Dialog.Title className="sr-only">Find anything</Dialog.Title>
      <Dialog.Description className="sr-only">
        Type a few letters, choose with the arrows, go with Enter.
      </Dialog.Description>
      <Command
        label="Find anything"
        shouldFilter={false}
        value={chosen !== undefined && keys.includes(chosen) ? chosen : (keys[0] ?? '')}
        onValueChange={setChosen}
      >
        <Command.Input
          value={typed}
          onValueChange={(text) => {
            setTyped(text)
            setChosen(undefined)
          }}
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
                .map((entry, at) => ({ entry, key: keyOf(entry, at) }))
                .filter(({ entry }) => entry.group === group)
                .map(({ entry, key }) => (
                  <Found key={key} value={key} entry={entry} onClose={onClose} />
                ))}
            </Command.Group>
          ))}
        </Command.List>
      </Command>
    </Overlay>
  )
}

function Found({ value, entry, onClose }: { value: string; entry: Entry; onClose: () => void }) {
  return (
    <Command.Item
      value={value}
      onSelect={() => {
        entry.run()
        onClose()
      }}
      className="flex cursor-pointer justify-between gap-4 rounded-box px-3 py-1.5 data-[selected=true]:bg-wash"
    >
      {entry.name}
      <span className="figure text-quiet">{entry.more}</span>
    </Command.Item>
  )
}

/** What fits the letters that were typed, in the order in which it is offered. */
function useEntries(typed: string, productionId: string | undefined): Entry[] {
  const navigate = useNavigate()
  const q = useDeferredValue(typed.trim())
  const { data: hits = [] } = useAsk(searchApi.find, {}, { query: { q }, placeholderData: (before) => before })
  const { data } = useProductions()
  const hasBench = useHasBench()
  const productions = data?.rows ?? []
  const current = productionId ?? productions[0]?.id
  const go = (path: string) => () => void navigate(path)
  const placeOf = ({ kind, productionId: owner }: SearchHit) => {
    if (kind === 'volume') return current ? `/p/${current}/storage` : '/'
    const next = productions.find((one) => one.id === owner)?.next.station ?? 'shoot'
    return `/p/${owner}/${kind === 'clip' ? 'cards' : next}`
  }
  const { stations, desks } = current ? placesOf(current, go) : { stations: [], desks: [] }
  return [
    ...stations.filter((entry) => begins(entry.name, typed)),
    ...(typed.trim() === '' ? [] : desks.filter((entry) => begins(entry.name, typed))),
    // Until the answer comes, what was found for fewer letters is narrowed down.
    ...hits
      .filter((hit) => begins(`${hit.name} ${hit.more}`, typed))
      .map((hit) => ({ group: GROUPS[hit.kind], name: hit.name, more: hit.more, run: go(placeOf(hit)) })),
    ...actionsOf(hasBench, go).filter((entry) => begins(entry.name, typed)),
  ]
}

type Go = (path: string) => () => void

const placesOf = (productionId: string, go: Go): { readonly stations: Entry[]; readonly desks: Entry[] } => ({
  stations: STATIONS.map((station, at) => ({
    group: 'Stations',
    name: STATION_NAMES[station],
    more: String(at + 1),
    run: go(`/p/${productionId}/${station}`),
  })),
  desks: STATIONS.flatMap((station) =>
    (DESKS[station] ?? []).map(({ id, name }) => ({
      group: 'Desks',
      name,
      more: STATION_NAMES[station],
      run: go(`/p/${productionId}/${station}/${id}`),
    })),
  ),
})

const actionsOf = (hasBench: boolean, go: Go): Entry[] => [
  { group: 'Actions', name: 'All productions', more: '0', run: go('/') },
  { group: 'Actions', name: 'New production', run: go('/?new') },
  { group: 'Actions', name: 'Chart: all loads and where their copies are', run: go('/chart') },
  { group: 'Actions', name: 'Checksum lists: compare a folder, write a list', run: go('/lists') },
  { group: 'Actions', name: 'Locker: gear, cards, drives, sites, clients, rules', run: go('/locker') },
  ...(hasBench ? [{ group: 'Actions', name: 'Bench: insert cards, cause faults', run: go('/bench') }] : []),
  { group: 'Actions', name: 'Change between day and night', run: switchTheme },
]
