import { Plus, X } from 'lucide-react'
import { useState } from 'react'
import {
  FOLDER_TAKES,
  type FolderTakes,
  type LinkWay,
  type SortRule,
  type TemplateFolder,
} from '../../../../core/cards/review/sorted'
import type { SortBody, SortedView } from '../../../../contract/sorted'
import type { VolumeView } from '../../../../contract/storage'
import { Button } from '../../../parts/controls/Button'
import { Choice } from '../../../parts/controls/Choice'
import { Field } from '../../../parts/controls/Field'
import { IconButton } from '../../../parts/controls/IconButton'
import { OneOf } from '../../../parts/controls/OneOf'
import { Switch } from '../../../parts/controls/Switch'
import { Tick } from '../../../parts/controls/Tick'
import { VolumeChoice } from '../../../trade/VolumeChoice'

interface SortRulesProps {
  readonly view: SortedView
  readonly volumes: readonly VolumeView[]
  readonly busy: boolean
  readonly onChange: (more: Partial<SortBody>) => void
}

const CAN: Record<LinkWay, readonly NonNullable<SortedView['canLink']>[]> = {
  reflink: ['reflink'],
  hard: ['reflink', 'hard'],
  copy: ['reflink', 'hard', 'none'],
}
const LINK_WORDS: Record<LinkWay, string> = {
  reflink: 'Shared bytes, until one is changed',
  hard: 'Hard links: no extra space, but a program that changes a file here also changes the proved copy',
  copy: 'Copies, read back',
}

/** On which volume, which clips, what is A-roll, how bytes are shared, and the folders. */
export function SortRules({ view, volumes, busy, onChange }: SortRulesProps) {
  const { settings, canLink } = view
  const { aRoll } = settings
  const has = (rule: SortRule) => aRoll.some((one) => one.by === rule.by && one.is === rule.is)
  const toggle = (rule: SortRule) =>
    onChange({
      aRoll: has(rule) ? aRoll.filter((one) => one.by !== rule.by || one.is !== rule.is) : [...aRoll, rule],
    })
  const ways = (Object.keys(CAN) as LinkWay[]).filter((way) => canLink === null || CAN[way].includes(canLink))
  return (
    <aside aria-label="How it is sorted" className="space-y-6">
      <VolumeChoice
        label="The view lies on"
        volumes={volumes}
        value={view.volumeId ?? ''}
        onChange={(volumeId) => onChange({ volumeId })}
      />
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Which clips</legend>
        <OneOf
          label="Which clips"
          value={settings.which}
          onChange={(which) => onChange({ which })}
          options={[
            { value: 'keep', words: 'Those that are kept' },
            { value: 'not-rejected', words: 'All but the rejected' },
          ]}
        />
      </fieldset>
      <fieldset className="space-y-1.5">
        <legend className="mb-1 text-sm font-semibold">A-roll is what comes from</legend>
        {view.cameras.map(({ id, name }) => (
          <Tick key={id} checked={has({ by: 'camera', is: id })} onChange={() => toggle({ by: 'camera', is: id })}>
            {name}
          </Tick>
        ))}
        {settings.which === 'not-rejected' && (
          <Tick checked={has({ by: 'verdict', is: 'keep' })} onChange={() => toggle({ by: 'verdict', is: 'keep' })}>
            clips that are kept
          </Tick>
        )}
        {view.shots.map(({ id, name }) => (
          <Tick key={id} checked={has({ by: 'shot', is: id })} onChange={() => toggle({ by: 'shot', is: id })}>
            the shot “{name}”
          </Tick>
        ))}
      </fieldset>
      <fieldset>
        <legend className="mb-1 text-sm font-semibold">Bytes</legend>
        <OneOf
          label="Bytes"
          value={settings.links}
          onChange={(links) => onChange({ links })}
          options={ways.map((way) => ({ value: way, words: LINK_WORDS[way] }))}
        />
      </fieldset>
      <Switch on={settings.editBegun} onChange={(editBegun) => onChange({ editBegun })}>
        Editing has begun: move and remove nothing
      </Switch>
      <Template
        key={settings.template.map((one) => one.path).join('\n')}
        template={settings.template}
        busy={busy}
        onChange={(template) => onChange({ template: [...template] })}
      />
    </aside>
  )
}

const TAKES_WORDS: Record<FolderTakes, string> = {
  'a-roll': 'A-roll',
  'b-roll': 'B-roll',
  sound: 'sound',
  none: 'by hand',
}

interface TemplateProps {
  readonly template: readonly TemplateFolder[]
  readonly busy: boolean
  readonly onChange: (template: readonly TemplateFolder[]) => void
}

function Template({ template, busy, onChange }: TemplateProps) {
  const [path, setPath] = useState('')
  const [takes, setTakes] = useState<FolderTakes>('none')
  return (
    <fieldset>
      <legend className="mb-1 text-sm font-semibold">Folders of the production</legend>
      <ul className="border-t border-rule">
        {template.map((folder) => (
          <li key={folder.path} className="flex items-center gap-2 border-b border-rule py-1">
            <span className="figure min-w-0 grow break-words">{folder.path}</span>
            <span className="shrink-0 text-sm text-quiet">{TAKES_WORDS[folder.takes]}</span>
            <IconButton
              icon={X}
              label={`Leave out ${folder.path}`}
              onClick={() => onChange(template.filter((one) => one.path !== folder.path))}
            />
          </li>
        ))}
      </ul>
      <div className="mt-3 flex flex-wrap items-end gap-2">
        <Field
          label="Another folder"
          className="-mb-[1.375rem] min-w-0 grow basis-36"
          placeholder="Stills"
          value={path}
          onChange={(event) => setPath(event.target.value)}
        />
        <Choice
          label="Takes"
          className="w-28"
          value={takes}
          onChange={(next) => setTakes(next as FolderTakes)}
          options={FOLDER_TAKES.map((one) => ({ value: one, label: TAKES_WORDS[one] }))}
        />
        <Button
          disabled={busy || path.trim() === ''}
          onClick={() => onChange([...template, { path: path.trim(), takes }])}
        >
          <Plus className="size-4" aria-hidden /> Add it
        </Button>
      </div>
    </fieldset>
  )
}
