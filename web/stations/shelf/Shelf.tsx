import { format } from 'date-fns'
import { useState } from 'react'
import { Link } from 'react-router'
import { counted, formatBytes } from '../../../core/units/quantity'
import type { DeliverableView } from '../../../contract/exports'
import { shelfApi, type BagView } from '../../../contract/shelf'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/Ask'
import { Button } from '../../parts/Button'
import { Empty } from '../../parts/Empty'
import { Choice } from '../../parts/Choice'
import { isOpen, useStorage, useTasks } from '../../parts/queries'
import { TaskLine } from '../../parts/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/useSend'
import { preferredVolume, VolumeChoice } from '../../parts/VolumeChoice'
import { useBags, useDeliverables } from './queries'
import { Wide } from '../../parts/Wide'

/** Station 7: what is kept, as bags that anybody can check in ten years. */
export default function Shelf({ productionId }: { productionId: string }) {
  const bags = useBags(productionId)
  return (
    <Ask query={useDeliverables(productionId)}>
      {({ deliverables }) =>
        deliverables.length === 0 ? (
          <Empty
            title="Nothing to shelve yet."
            action={
              <Link
                to={`/p/${productionId}/exports`}
                className="font-semibold text-accent underline underline-offset-4"
              >
                Make a deliverable first
              </Link>
            }
          >
            A finished film goes onto the shelf as a bag: a folder with the film, notes, and a list of checksums that
            any computer can check without Yendra (BagIt, RFC 8493).
          </Empty>
        ) : (
          <Ask query={bags}>
            {(made) => <Bags bags={made} deliverables={deliverables} productionId={productionId} />}
          </Ask>
        )
      }
    </Ask>
  )
}

function Bags({
  bags,
  deliverables,
  productionId,
}: {
  bags: readonly BagView[]
  deliverables: readonly DeliverableView[]
  productionId: string
}) {
  const send = useSend(shelfApi.shelve)
  const { data: storage } = useStorage(productionId)
  const { data: tasks = [] } = useTasks()
  const [chosen, setChosen] = useState<string>()
  const [volume, setVolume] = useState<string>()
  const deliverableId = chosen ?? deliverables.find((one) => one.pass)?.id ?? deliverables[0]?.id ?? ''
  const volumeId = volume ?? preferredVolume(storage?.volumes ?? [], 'archive')
  const task = tasks.find((one) => one.kind === 'bag' && one.productionId === productionId)
  const busy = task !== undefined && isOpen(task)
  const places = new Set(bags.map((bag) => bag.volumeName))
  const sentence =
    bags.length === 0
      ? 'No film is on the shelf yet.'
      : `${counted(bags.length, 'bag is', 'bags are')} on ${[...places].join(' and ')}.`
  const why =
    bags.length === 0
      ? 'Put each film on two volumes, one of them off-site.'
      : places.size < 2
        ? 'One volume is one accident: put it on a second one that is kept elsewhere.'
        : 'Rehearse a restore: open one clip from a bag each quarter.'
  return (
    <>
      <Answer
        why={why}
        action={
          storage && (
            <div className="flex flex-wrap items-end gap-3">
              <Choice
                label="Film"
                className="w-64"
                value={deliverableId}
                onChange={setChosen}
                options={deliverables.map((one) => ({
                  value: one.id,
                  label: `${one.destinationName}, ${one.clipName}${one.pass ? '' : ' (does not pass)'}`,
                }))}
              />
              <VolumeChoice label="Onto" volumes={storage.volumes} value={volumeId} onChange={setVolume} />
              <Button
                look="primary"
                disabled={busy || send.isPending || !volumeId}
                onClick={() => send.mutate({ params: {}, body: { deliverableId, volumeId } })}
              >
                Write the bag
              </Button>
            </div>
          )
        }
      >
        {sentence}
      </Answer>
      <Trouble error={send.error} />
      {task && (
        <div className="mb-6 border-y border-rule py-3">
          <TaskLine task={task} />
        </div>
      )}
      {bags.length > 0 && (
        <Wide label="Bags">
          <table className="min-w-[46rem]">
            <thead>
              <tr>
                <th>Bag</th>
                <th>Volume</th>
                <th className="text-right">Files</th>
                <th className="text-right">Bytes</th>
                <th>Written</th>
                <th>Proved</th>
              </tr>
            </thead>
            <tbody>
              {bags.map((bag) => (
                <tr key={bag.id} data-bag={bag.title}>
                  <td>
                    <span className="font-bold">{bag.title}</span>
                    <span className="figure block text-sm break-all text-quiet">{bag.path}</span>
                  </td>
                  <td>
                    {bag.volumeName}
                    <span className="block text-sm text-quiet">{bag.site}</span>
                  </td>
                  <td className="figure text-right">{bag.fileCount}</td>
                  <td className="figure text-right">{formatBytes(bag.sizeBytes)}</td>
                  <td className="figure">{format(new Date(bag.writtenAt), 'yyyy-MM-dd HH:mm')}</td>
                  <td>
                    {bag.verifiedAt ? (
                      <span className="text-good">read back, equal</span>
                    ) : (
                      <span className="text-doubt">not past the cache</span>
                    )}
                  </td>
                </tr>
              ))}
            </tbody>
          </table>
          <p className="mt-4 text-quiet">
            To check a bag without Yendra, open its folder and run{' '}
            <span className="figure text-ink">sha256sum -c manifest-sha256.txt</span>
          </p>
        </Wide>
      )}
    </>
  )
}
