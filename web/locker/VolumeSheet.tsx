import { useState } from 'react'
import { MEDIA, MEDIUM_WORDS } from '../../core/copies/medium'
import { gearApi, volumeBody, type LockerView } from '../../contract/gear'
import { VOLUME_KINDS } from '../../contract/storage'
import { FormChoice, FormField, FormName } from '../parts/form/fields'
import { useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
import { useSend } from '../parts/asking/useSend'
import { VOLUME_WORDS } from '../trade/volumeWords'

const UNSAID = 'unsaid'
const MEDIUM_OPTIONS = [
  { value: UNSAID, label: 'not said' },
  ...MEDIA.map((one) => ({ value: one, label: MEDIUM_WORDS[one] })),
]

/** Name, use and place of a volume. */
export function VolumeSheet({ volume, onClose }: { volume: LockerView['volumes'][number]; onClose: () => void }) {
  const send = useSend(gearApi.changeVolume)
  const [seen] = useState(volume.version)
  const { name, kind, site, medium, mediumSeen } = volume
  const { control, handleSubmit } = useTyped(
    volumeBody,
    { name, kind, site, medium: medium ?? UNSAID, cycleDays: String(volume.cycleDays) },
    (typed) => ({
      ...typed,
      medium: typed.medium === UNSAID ? null : typed.medium,
      // Nothing typed is no number, and not what was there before.
      cycleDays: Number(typed.cycleDays.trim() || Number.NaN),
    }),
  )
  return (
    <FormSheet
      title={`Change ${volume.name}`}
      about={
        volume.holds
          ? `What is known of it stays: ${volume.holds}. It is known again by its marker, wherever it is mounted.`
          : 'It is known again by its marker, wherever it is mounted.'
      }
      onClose={onClose}
      onSave={handleSubmit((body) => send.mutate({ params: { id: volume.id }, body, seen }, { onSuccess: onClose }))}
      save="Save the change"
      busy={send.isPending}
      error={send.error}
    >
      <FormName control={control} name="name" />
      <div className="grid gap-x-4 sm:grid-cols-2">
        <FormChoice
          control={control}
          name="kind"
          label="Used as"
          className="mb-5"
          options={VOLUME_KINDS.map((one) => ({ value: one, label: VOLUME_WORDS[one] }))}
        />
        <FormField control={control} name="site" label="Kept at" maxLength={60} />
        <FormField
          control={control}
          name="cycleDays"
          label="Read again within, in days"
          inputMode="numeric"
          maxLength={4}
          hint="Every file, by night."
        />
        {mediumSeen ? (
          <p className="mb-5 text-quiet">It keeps bytes on {MEDIUM_WORDS[mediumSeen]}: so the system says.</p>
        ) : (
          <FormChoice
            control={control}
            name="medium"
            label="Keeps bytes on"
            className="mb-5"
            options={MEDIUM_OPTIONS}
          />
        )}
      </div>
    </FormSheet>
  )
}
