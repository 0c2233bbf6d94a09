import { coloursStated, COLOUR_CHOICES, type ColourChoice } from '../../../core/exports/colours'
import type { DeliveryChoice, FieldChoice } from '../../../core/exports/plan'
import { soundLabel } from '../../../core/exports/sound'
import { isInterlaced, type MediaFacts } from '../../../core/media/facts'
import { Choice } from '../../parts/controls/Choice'

const COLOURS: Record<ColourChoice, string> = {
  stated: 'As usual for its size',
  bt709: 'BT.709',
  'bt601-525': 'BT.601, 525 lines',
  'bt601-625': 'BT.601, 625 lines',
}

interface ChoicesProps {
  readonly facts: MediaFacts
  readonly choice: DeliveryChoice
  readonly onChange: (choice: DeliveryChoice) => void
}

/** What a master leaves open: its fields, colours that it does not state, which of its sounds. Nothing, for most. */
export function Choices({ facts, choice, onChange }: ChoicesProps) {
  const { video, sounds } = facts
  return (
    <div className="mt-2 space-y-3">
      {video && isInterlaced(video) && (
        <Choice
          label="Fields"
          value={choice.fields}
          onChange={(fields) => onChange({ ...choice, fields: fields as FieldChoice })}
          options={[
            { value: 'frame', label: 'One picture for each frame' },
            { value: 'field', label: 'One picture for each field' },
          ]}
        />
      )}
      {video && !coloursStated(video) && (
        <Choice
          label="Treat its colours as"
          value={choice.colours}
          onChange={(colours) => onChange({ ...choice, colours: colours as ColourChoice })}
          options={COLOUR_CHOICES.map((value) => ({ value, label: COLOURS[value] }))}
        />
      )}
      {sounds.length > 1 && (
        <Choice
          label="Sound"
          value={String(choice.soundTrack ?? facts.audio?.index)}
          onChange={(index) => onChange({ ...choice, soundTrack: Number(index) })}
          options={sounds.map((track, at) => ({ value: String(track.index), label: soundLabel(track, at) }))}
        />
      )}
    </div>
  )
}
