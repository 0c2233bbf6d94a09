import { useState } from 'react'
import { BYTE_CLASSES, type ByteClass, type ClassBytes } from '../../../core/storage/budget'
import { storageSentence } from '../../../core/storage/budget'
import { formatBytes } from '../../../core/units/quantity'
import type { StorageView } from '../../../contract/storage'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Empty } from '../../parts/Empty'
import { useStorage } from '../../trade/queries'
import { AddFolderSheet } from './AddFolderSheet'
import { VolumeBars } from './VolumeBars'
import { VolumeTable } from './VolumeTable'

const CLASS_WORDS: Record<ByteClass, string> = {
  originals: 'Originals: never made again',
  generated: 'Generated: can be made again',
  outputs: 'Outputs: finished films and bags',
}

/** Station 5: how full everything is, and what this production's bytes are. */
export default function Storage({ productionId }: { productionId: string }) {
  const [adding, setAdding] = useState(false)
  const add = () => setAdding(true)
  return (
    <>
      <Ask query={useStorage(productionId)}>
        {({ volumes, ...rest }) => {
          const storage = { ...rest, volumes: volumes.filter((volume) => !volume.away) }
          return storage.volumes.length === 0 ? (
            <Empty
              title="No volume is known yet."
              shows="storage"
              action={
                <Button look="primary" onClick={add}>
                  Add a volume
                </Button>
              }
            >
              Add the drives you edit on and archive to. At least two are needed before a card may be called safe.
            </Empty>
          ) : (
            <Rooms storage={storage} onAdd={add} />
          )
        }}
      </Ask>
      <AddFolderSheet what="volume" open={adding} onClose={() => setAdding(false)} />
    </>
  )
}

const total = (classes: readonly ClassBytes[]) => classes.reduce((sum, one) => sum + one.sizeBytes, 0)

function Rooms({ storage, onAdd }: { storage: StorageView; onAdd: () => void }) {
  const away = storage.volumes.filter((volume) => !volume.connected)
  return (
    <>
      <Answer
        why={
          '15 % of an edit drive and 5 % of the others are kept ' +
          `free.${away.length > 0 ? ` ${away.map((volume) => volume.name).join(', ')}: not connected, figures from when it was last seen.` : ''}`
        }
        action={<Button onClick={onAdd}>Add a volume</Button>}
      >
        {storageSentence(storage.volumes)}
      </Answer>
      <div className="grid gap-x-12 gap-y-8 lg:grid-cols-[1fr_19rem]">
        <section aria-label="How full the volumes are" className="min-w-0">
          <h2 className="mb-1">How full the volumes are</h2>
          <VolumeBars volumes={storage.volumes} />
        </section>
        <section aria-label="Bytes of this production">
          <h2 className="mb-2">
            This production: <span className="figure">{formatBytes(total(storage.productionClasses))}</span>
          </h2>
          <dl>
            {BYTE_CLASSES.map((name) => (
              <div key={name} className="flex justify-between gap-4 border-t border-rule py-2">
                <dt>{CLASS_WORDS[name]}</dt>
                <dd className="figure whitespace-nowrap" data-class={name}>
                  {formatBytes(storage.productionClasses.find((one) => one.byteClass === name)?.sizeBytes ?? 0)}
                </dd>
              </div>
            ))}
          </dl>
          <p className="mt-2 text-sm text-quiet">All copies counted, each where it lies.</p>
        </section>
      </div>
      <VolumeTable volumes={storage.volumes} />
    </>
  )
}
