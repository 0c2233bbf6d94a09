import { useState } from 'react'
import { SITE_KINDS, SITE_WORDS } from '../../core/copies/medium'
import { gearApi, siteBody, type LockerView } from '../../contract/gear'
import { useSend } from '../parts/asking/useSend'
import { FormChoice, FormName } from '../parts/form/fields'
import { useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'

const UNSAID = 'unsaid'

/** A site: its name, and whether it stays where it is, is carried, or lies on the net. */
export function SiteSheet({ site, onClose }: { site: LockerView['sites'][number]; onClose: () => void }) {
  const send = useSend(gearApi.changeSite)
  const [seen] = useState(site.version)
  const { control, handleSubmit } = useTyped(siteBody, { name: site.name, kind: site.kind ?? UNSAID }, (typed) => ({
    ...typed,
    kind: typed.kind === UNSAID ? null : typed.kind,
  }))
  return (
    <FormSheet
      title={`Change ${site.name}`}
      about="All that you carry counts as one site: a bag is lost with everything in it."
      onClose={onClose}
      onSave={handleSubmit((body) => send.mutate({ params: { id: site.id }, body, seen }, { onSuccess: onClose }))}
      save="Save the site"
      busy={send.isPending}
      error={send.error}
    >
      <FormName control={control} name="name" />
      <FormChoice
        control={control}
        name="kind"
        label="It is"
        className="mb-5"
        options={[
          { value: UNSAID, label: 'not said' },
          ...SITE_KINDS.map((one) => ({ value: one, label: SITE_WORDS[one] })),
        ]}
      />
    </FormSheet>
  )
}
