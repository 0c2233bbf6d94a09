import { yupResolver } from '@hookform/resolvers/yup'
import { useController, useForm } from 'react-hook-form'
import { cardsApi, newReader } from '../../../contract/cards'
import type { Endpoint } from '../../../contract/endpoint'
import { newVolume, storageApi, VOLUME_KINDS, type NewVolume, type Registered } from '../../../contract/storage'
import type { ApiProblem } from '../../parts/asking/api'
import { Button } from '../../parts/controls/Button'
import { Choice } from '../../parts/controls/Choice'
import { Field } from '../../parts/controls/Field'
import { FolderChooser } from '../../trade/FolderChooser'
import { Sheet } from '../../parts/layers/Sheet'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { fileNameOf } from '../../../core/units/filePath'

const KIND_WORDS: Record<(typeof VOLUME_KINDS)[number], string> = {
  edit: 'edit drive',
  archive: 'archive drive',
  phone: 'phone',
  cloud: 'cloud folder',
  stick: 'flash drive',
}

const TEXTS = {
  volume: {
    title: 'Add a volume',
    about:
      'Yendra reads and writes below this folder only, and leaves one small marker there (.yendra) so ' +
      'that the volume is known wherever it is mounted.',
    placeholder: '/media/you/Slipway',
  },
  reader: {
    title: 'Add a reader folder',
    about: 'The folder where your card appears when it is in the reader. Yendra never writes there.',
    placeholder: '/media/you/CARD',
  },
} as const

/** Registers a real folder as a volume or as a card reader. */
export function AddFolderSheet({
  what,
  path = '',
  open,
  onClose,
}: {
  what: 'volume' | 'reader'
  /** Where it is, when that is known already. */
  path?: string
  open: boolean
  onClose: () => void
}) {
  return (
    <Sheet title={TEXTS[what].title} about={TEXTS[what].about} open={open} onClose={onClose}>
      {what === 'volume' ? <VolumeForm path={path} onClose={onClose} /> : <ReaderForm onClose={onClose} />}
    </Sheet>
  )
}

const lastPart = (path: string) => fileNameOf(path).slice(0, 60)

/** Registers a folder; what lies on a drive that is known already is said before the sheet closes. */
function useRegister<Path extends '/volumes' | '/readers', Body>(
  endpoint: Endpoint<Path, Body, undefined, Registered>,
  onClose: () => void,
) {
  const send = useSend<'/volumes' | '/readers', Body, undefined, Registered>(endpoint)
  const shares = send.data?.sharesDriveWith ?? []
  const save = (body: Body) =>
    send.mutate({ params: {}, body }, { onSuccess: (made) => made.sharesDriveWith.length === 0 && onClose() })
  return { send, save, shares }
}

function SharedDrive({ shares, onClose }: { shares: readonly string[]; onClose: () => void }) {
  return (
    <>
      <p className="mb-4" role="status">
        It is added. It lies on the same drive as <strong>{shares.join(' and ')}</strong>: what is on both counts as one
        copy, and one broken drive takes both along.
      </p>
      <Button look="primary" onClick={onClose}>
        I see
      </Button>
    </>
  )
}

function VolumeForm({ path, onClose }: { path: string; onClose: () => void }) {
  const { send, save: add, shares } = useRegister(storageApi.addVolume, onClose)
  const {
    register,
    control,
    setValue,
    handleSubmit,
    formState: { errors, dirtyFields },
  } = useForm<NewVolume>({
    resolver: yupResolver(newVolume),
    defaultValues: { kind: 'archive', name: lastPart(path), site: '', path, sure: false },
  })
  const kind = useController({ control, name: 'kind' })
  const walk = (path: string) => {
    setValue('path', path, { shouldValidate: path !== '' })
    // A drive is mostly called as it is labelled, until somebody says otherwise.
    if (!dirtyFields.name) setValue('name', lastPart(path))
  }
  const save = (sure: boolean) => void handleSubmit((body) => add({ ...body, sure }))()
  if (shares.length > 0) return <SharedDrive shares={shares} onClose={onClose} />
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        save(false)
      }}
      noValidate
    >
      <Field
        label="Folder"
        className="-mb-4"
        placeholder={TEXTS.volume.placeholder}
        fault={errors.path?.message}
        autoFocus
        {...register('path')}
      />
      {path === '' && <FolderChooser onChange={walk} />}
      <Field label="Name" fault={errors.name?.message} hint="What is written on its label." {...register('name')} />
      <div className="mt-3 mb-2 grid gap-x-4 gap-y-3 sm:grid-cols-2">
        <Choice
          label="Kind"
          value={kind.field.value}
          onChange={kind.field.onChange}
          options={VOLUME_KINDS.map((one) => ({ value: one, label: KIND_WORDS[one] }))}
        />
        <Field
          label="Kept at"
          placeholder="studio, home, off-site …"
          fault={errors.site?.message}
          {...register('site')}
        />
      </div>
      <Ending error={send.error} pending={send.isPending} onSure={() => save(true)} onClose={onClose} />
    </form>
  )
}

function ReaderForm({ onClose }: { onClose: () => void }) {
  const { send, save: add, shares } = useRegister(cardsApi.addReader, onClose)
  const {
    register,
    setValue,
    handleSubmit,
    formState: { errors, dirtyFields },
  } = useForm({ resolver: yupResolver(newReader), defaultValues: { name: '', path: '', sure: false } })
  const walk = (path: string) => {
    setValue('path', path, { shouldValidate: path !== '' })
    // A drive is mostly called as it is labelled, until somebody says otherwise.
    if (!dirtyFields.name) setValue('name', lastPart(path))
  }
  const save = (sure: boolean) => void handleSubmit((body) => add({ ...body, sure }))()
  if (shares.length > 0) return <SharedDrive shares={shares} onClose={onClose} />
  return (
    <form
      onSubmit={(event) => {
        event.preventDefault()
        save(false)
      }}
      noValidate
    >
      <Field
        label="Folder"
        className="-mb-4"
        placeholder={TEXTS.reader.placeholder}
        fault={errors.path?.message}
        autoFocus
        {...register('path')}
      />
      <FolderChooser onChange={walk} />
      <Field label="Name" fault={errors.name?.message} hint="Such as “left slot”." {...register('name')} />
      <Ending error={send.error} pending={send.isPending} onSure={() => save(true)} onClose={onClose} />
    </form>
  )
}

interface EndingProps {
  readonly error: ApiProblem | null
  readonly pending: boolean
  /** The folder is an unlikely one, and the person means it. */
  readonly onSure: () => void
  readonly onClose: () => void
}

function Ending({ error, pending, onSure, onClose }: EndingProps) {
  const unlikely = error?.problem.type === '/problems/not-sure'
  return (
    <>
      <Trouble error={error} />
      <div className="flex flex-wrap gap-3">
        {unlikely ? (
          <Button look="primary" disabled={pending} onClick={onSure}>
            Add it all the same
          </Button>
        ) : (
          <Button look="primary" type="submit" disabled={pending}>
            Add it
          </Button>
        )}
        <Button onClick={onClose}>Leave</Button>
      </div>
    </>
  )
}
