import { object, string } from 'yup'
import { NAME_PARTS, namesBy, patternFault, USUAL_PATTERN, type NamedClip } from '../../../../core/cards/review/naming'
import { counted } from '../../../../core/units/quantity'
import { reviewApi } from '../../../../contract/review'
import { Ask } from '../../../parts/asking/Ask'
import { Button } from '../../../parts/controls/Button'
import { FormField } from '../../../parts/form/fields'
import { useTyped } from '../../../parts/form/useTyped'
import { FormSheet } from '../../../parts/layers/FormSheet'
import { useAsk } from '../../../parts/asking/useAsk'
import { useSend } from '../../../parts/asking/useSend'

interface NamesProps {
  readonly productionId: string
  readonly onClose: () => void
}

/** A clip's name; `null` is the camera's. */
interface GivenName {
  readonly id: string
  readonly name: string | null
}

/** Names for all kept clips by a pattern, shown before they are given. */
export function Names(props: NamesProps) {
  const { productionId } = props
  const nameable = useAsk(reviewApi.nameable, { id: productionId })
  return <Ask query={nameable}>{(clips) => <Pattern {...props} clips={clips} />}</Ask>
}

const SHOWN = 200

const patternTyped = object({
  pattern: string()
    .defined()
    .test('pattern', (pattern, { createError }) => {
      const fault = patternFault(pattern)
      return fault === undefined || createError({ message: fault })
    }),
})

function Pattern({ productionId, clips, onClose }: NamesProps & { clips: readonly NamedClip[] }) {
  const send = useSend(reviewApi.setNames)
  const { control, handleSubmit, watch } = useTyped(patternTyped, { pattern: USUAL_PATTERN })
  const pattern = watch('pattern')
  const changes = patternFault(pattern) === undefined ? namesBy(pattern, clips) : []
  const open = changes.filter(({ from, to }) => from !== to)
  const give = (names: readonly GivenName[]) => {
    send.mutate({ params: { id: productionId }, body: { names: [...names] } }, { onSuccess: onClose })
  }
  const named = clips.filter(({ name }) => name !== null)
  return (
    <FormSheet
      title={`Name ${counted(clips.length, 'kept clip')}`}
      about="Names are those of the sorted view and of what leaves for an editing program. The mirror of the card keeps the camera’s names."
      width="max-w-3xl"
      onClose={onClose}
      onSave={handleSubmit(() => {
        if (open.length > 0) give(open.map(({ id, to }) => ({ id, name: to })))
      })}
      save={open.length === 0 ? 'Nothing changes' : `Give ${counted(open.length, 'name')}`}
      busy={send.isPending || open.length === 0}
      error={send.error}
      more={
        named.length > 0 && (
          <Button disabled={send.isPending} onClick={() => give(named.map(({ id }) => ({ id, name: null })))}>
            Give the camera’s names back
          </Button>
        )
      }
    >
      <FormField
        control={control}
        name="pattern"
        label="Pattern"
        className="mb-2"
        maxLength={200}
        spellCheck={false}
        hint={Object.entries(NAME_PARTS)
          .map(([part, what]) => `{${part}} ${what}`)
          .join(', ')}
      />
      <table className="mb-5 w-full text-sm">
        <thead>
          <tr className="border-b border-ink text-left">
            <th className="py-1 pr-4 font-semibold">Now</th>
            <th className="py-1 font-semibold">Then</th>
          </tr>
        </thead>
        <tbody className="figure">
          {changes.slice(0, SHOWN).map(({ id, file, from, to }) => (
            <tr key={id} className="border-b border-rule align-top">
              <td className="py-1 pr-4 wrap-anywhere text-quiet">{from ?? file}</td>
              <td className={`py-1 wrap-anywhere ${from === to ? 'text-quiet' : 'font-semibold'}`}>{to}</td>
            </tr>
          ))}
        </tbody>
      </table>
      {changes.length > SHOWN && <p className="mb-4 text-quiet">And {changes.length - SHOWN} more.</p>}
    </FormSheet>
  )
}
