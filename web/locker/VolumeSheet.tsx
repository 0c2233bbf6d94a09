import { useState } from 'react'
import { gearApi, type LockerView } from '../../contract/gear'
import { VOLUME_KINDS } from '../../contract/storage'
import { Choice } from '../parts/controls/Choice'
import { Field } from '../parts/controls/Field'
import { FormSheet, NameField } from '../parts/layers/FormSheet'
import { useSend } from '../parts/asking/useSend'
import { VOLUME_WORDS } from '../trade/volumeWords'

/** Name, use and place of a volume. */
export function VolumeSheet({ volume, onClose }: { volume: LockerView['volumes'][number]; onClose: () => void }) {
  const send = useSend(gearApi.changeVolume)
  const [seen] = useState(volume.version)
  const [name, setName] = useState(volume.name)
  const [kind, setKind] = useState(volume.kind)
  const [site, setSite] = useState(volume.site)
  const whole = name.trim() !== '' && site.trim() !== ''
  return (
    <FormSheet
      title={`Change ${volume.name}`}
      about={
        volume.holds
          ? `What is known of it stays: ${volume.holds}. It is known again by its marker, wherever it is mounted.`
          : 'It is known again by its marker, wherever it is mounted.'
      }
      onClose={onClose}
      onSave={() => {
        if (whole) send.mutate({ params: { id: volume.id }, body: { name, kind, site }, seen }, { onSuccess: onClose })
      }}
      save="Save the change"
      busy={send.isPending}
      error={send.error}
    >
      <NameField value={name} onChange={setName} tried />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <Choice
          label="Used as"
          className="mb-5"
          value={kind}
          onChange={(value) => setKind(VOLUME_KINDS.find((one) => one === value) ?? kind)}
          options={VOLUME_KINDS.map((one) => ({ value: one, label: VOLUME_WORDS[one] }))}
        />
        <Field
          label="Kept at"
          value={site}
          maxLength={60}
          fault={site.trim() === '' ? 'Say where it is kept.' : undefined}
          onChange={(event) => setSite(event.target.value)}
        />
      </div>
    </FormSheet>
  )
}
