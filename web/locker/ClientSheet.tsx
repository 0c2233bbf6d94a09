import { useState } from 'react'
import { RAW_KEPT, type RawKept } from '../../core/copies/rule'
import { clientBody, gearApi, type LockerView } from '../../contract/gear'
import { useSend } from '../parts/asking/useSend'
import { FormChoice, FormName } from '../parts/form/fields'
import { useTyped } from '../parts/form/useTyped'
import { FormSheet } from '../parts/layers/FormSheet'
import { useRules } from '../trade/queries'
import { RuleEffect } from '../trade/RuleEffect'

export const RAW_WORDS: Record<RawKept, string> = {
  all: 'all raw footage is kept',
  'film-and-tracks': 'the film and one render a track are kept',
}

const USUAL = 'usual'

/** A client: name, rule of a yes, and what becomes of raw footage. */
export function ClientSheet({ client, onClose }: { client: LockerView['clients'][number]; onClose: () => void }) {
  const send = useSend(gearApi.changeClient)
  const [seen] = useState(client.version)
  const { data } = useRules()
  const { control, handleSubmit, watch } = useTyped(
    clientBody,
    { name: client.name, ruleId: client.ruleId ?? USUAL, raw: client.raw },
    (typed) => ({ ...typed, ruleId: typed.ruleId === USUAL ? null : typed.ruleId }),
  )
  const ruleId = watch('ruleId')
  return (
    <FormSheet
      title={`Change ${client.name}`}
      about="A new name is used on all of its productions. What becomes of raw footage is read by budget and shelf; by itself it removes nothing."
      onClose={onClose}
      onSave={handleSubmit((body) => send.mutate({ params: { id: client.id }, body, seen }, { onSuccess: onClose }))}
      save="Save the client"
      busy={send.isPending}
      error={send.error}
    >
      <FormName control={control} name="name" />
      <FormChoice
        control={control}
        name="ruleId"
        label="A card may be formatted by"
        className="mb-2"
        options={[
          { value: USUAL, label: 'the usual rule' },
          ...(data?.rules ?? [])
            .filter((rule) => !rule.away || rule.id === client.ruleId)
            .map(({ id, name }) => ({ value: id, label: name })),
        ]}
      />
      {ruleId !== (client.ruleId ?? USUAL) && (
        <RuleEffect change={{ of: 'client', id: client.id, ruleId: ruleId === USUAL ? '' : ruleId }} />
      )}
      <FormChoice
        control={control}
        name="raw"
        label="Raw footage, once the film is out"
        className="mb-5"
        options={RAW_KEPT.map((one) => ({ value: one, label: RAW_WORDS[one] }))}
      />
    </FormSheet>
  )
}
