import { useState } from 'react'
import { ALGORITHM_WORDS } from '../../../../core/copies/lists/algorithm'
import { formatBytes } from '../../../../core/units/quantity'
import type { FoldersView } from '../../../../contract/folders'
import { listsApi, WRITTEN_WITH, type NearView } from '../../../../contract/lists'
import { useSend } from '../../../parts/asking/useSend'
import { Button } from '../../../parts/controls/Button'
import { Choice } from '../../../parts/controls/Choice'
import { Field } from '../../../parts/controls/Field'
import { OneOf } from '../../../parts/controls/OneOf'
import { Trouble } from '../../../parts/Trouble'
import { FolderChooser } from '../../../trade/FolderChooser'
import { useListAddress, useNear } from './queries'

const saysWhere = ({ path }: FoldersView) => ({ words: `${path} is chosen.`, isFault: false })

/** A folder, and what is to be done with it: compared with a list, or listed. */
export function FolderAndList({ onOrdered }: { onOrdered: () => void }) {
  const { folder: named } = useListAddress()
  const [folder, setFolder] = useState(named)
  const near = useNear(folder)
  return (
    <section aria-label="Folder and list" className="grid gap-x-10 gap-y-2 pt-2 md:grid-cols-2">
      <div>
        <h2 className="mb-2 text-lg">The folder</h2>
        <Field
          label="Folder"
          className="-mb-4"
          placeholder="/media/you/Tide 2/Old footage"
          value={folder}
          onChange={(event) => setFolder(event.target.value)}
          fault={folder === '' ? undefined : near.error?.problem.detail}
        />
        <FolderChooser onChange={setFolder} says={saysWhere} />
      </div>
      {near.data && !near.error && folder !== '' ? (
        <div>
          <Comparing key={near.data.path} near={near.data} onOrdered={onOrdered} />
          <Writing near={near.data} />
        </div>
      ) : (
        <p className="pt-8 text-quiet">Lists that lie in the folder or beside it are found by themselves.</p>
      )}
    </section>
  )
}

const OTHER = 'other'
const MANIFESTS = 'manifests'

function Comparing({ near, onOrdered }: { near: NearView; onOrdered: () => void }) {
  const { path, isBag, lists } = near
  const [chosen, setChosen] = useState(isBag ? MANIFESTS : (lists[0]?.path ?? OTHER))
  const [other, setOther] = useState('')
  const send = useSend(listsApi.verify)
  const list = chosen === MANIFESTS ? '' : chosen === OTHER ? other : chosen
  const options = [
    ...(isBag ? [{ value: MANIFESTS, label: 'its own manifests: it is a bag' }] : []),
    ...lists.map(({ path: value, name, where, algorithm, sizeBytes }) => ({
      value,
      label: `${name}${algorithm ? `, ${ALGORITHM_WORDS[algorithm]}` : ''}, ${formatBytes(sizeBytes)}, ${where === 'inside' ? 'in the folder' : 'beside it'}`,
    })),
    { value: OTHER, label: 'another file …' },
  ]
  return (
    <form
      noValidate
      className="mb-6"
      onSubmit={(event) => {
        event.preventDefault()
        send.mutate({ params: {}, body: { folder: path, list } }, { onSuccess: onOrdered })
      }}
    >
      <h2 className="mb-2 text-lg">Compare it with a list</h2>
      <Choice label="List" value={chosen} options={options} onChange={setChosen} className="mb-3" />
      {chosen === OTHER && (
        <Field
          label="Path of the list"
          placeholder="/media/you/Tide 2/footage.md5"
          value={other}
          onChange={(event) => setOther(event.target.value)}
          hint={lists.length === 0 && !isBag ? 'No list was found in this folder or beside it.' : undefined}
        />
      )}
      <Trouble error={send.error} />
      <Button look="primary" type="submit" disabled={send.isPending || (chosen === OTHER && !other.startsWith('/'))}>
        Compare
      </Button>
    </form>
  )
}

function Writing({ near: { path, volumeName } }: { near: NearView }) {
  const [algorithm, setAlgorithm] = useState<(typeof WRITTEN_WITH)[number]>('sha256')
  const [where, setWhere] = useState<'beside' | 'download'>(volumeName === null ? 'download' : 'beside')
  const send = useSend(listsApi.write)
  return (
    <form
      noValidate
      onSubmit={(event) => {
        event.preventDefault()
        send.mutate({ params: {}, body: { folder: path, algorithm, where } })
      }}
    >
      <h2 className="mb-2 text-lg">Write a list of it</h2>
      <Choice
        label="Made with"
        value={algorithm}
        options={WRITTEN_WITH.map((one) => ({ value: one, label: ALGORITHM_WORDS[one] }))}
        onChange={(next) => setAlgorithm(WRITTEN_WITH.find((one) => one === next) ?? 'sha256')}
        className="mb-2"
      />
      {volumeName === null ? (
        <p className="mb-3 text-quiet">
          This folder lies on no volume that was added, so nothing is written there: the list is for download.
        </p>
      ) : (
        <div className="mb-3">
          <OneOf
            label="Where the list goes"
            value={where}
            onChange={setWhere}
            options={[
              { value: 'beside', words: `Beside the folder, on ${volumeName}` },
              { value: 'download', words: 'For download' },
            ]}
          />
        </div>
      )}
      <Trouble error={send.error} />
      <Button type="submit" disabled={send.isPending}>
        Read it and write the list
      </Button>
    </form>
  )
}
