import { useState } from 'react'
import { Link } from 'react-router'
import { counted, formatBytes } from '../../../core/units/quantity'
import type { LoadView } from '../../../contract/cards'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { DemoPicture } from '../../parts/DemoPicture'
import { Older } from '../../parts/table/Older'
import { isOpen, useTasks } from '../../trade/queries'
import { TaskLine } from '../../trade/TaskLine'
import { AddFolderSheet } from '../storage/AddFolderSheet'
import { ClipTable } from './ClipTable'
import { Findings } from './Findings'
import { LoadGear } from './LoadGear'
import { Readers } from './Readers'
import { Rigs } from './Rigs'
import { useLoads, useReaders } from './queries'

/** Station 2: what lies in the reader, what is on it, and what is wrong with it. */
export default function Cards({ productionId }: { productionId: string }) {
  const readers = useReaders()
  const loads = useLoads(productionId)
  const { data: tasks = [] } = useTasks()
  const [adding, setAdding] = useState(false)
  const scanning = tasks.filter((task) => task.kind === 'scan' && task.productionId === productionId && isOpen(task))
  const failed = tasks.find((task) => task.kind === 'scan' && task.productionId === productionId)
  return (
    <>
      <Ask query={readers}>
        {(known) => (
          <Readers
            readers={known}
            productionId={productionId}
            loads={loads.data?.rows ?? []}
            onAdd={() => setAdding(true)}
          />
        )}
      </Ask>
      {scanning.map((task) => (
        <div key={task.id} className="mb-6 border-y border-rule py-3">
          <TaskLine task={task} />
        </div>
      ))}
      {scanning.length === 0 && failed?.state === 'failed' && (
        <div className="mb-6 border-y border-rule py-3">
          <TaskLine task={failed} />
        </div>
      )}
      <Rigs productionId={productionId} />
      <Ask query={loads}>
        {({ rows }) =>
          rows.length === 0 && scanning.length === 0 ? (
            <div className="max-w-3xl">
              <DemoPicture of="cards" />
            </div>
          ) : (
            rows.map((load, at) => (
              <LoadSection key={load.id} load={load} productionId={productionId} unfolded={at < UNFOLDED} />
            ))
          )
        }
      </Ask>
      <Older pages={loads}>Show older loads</Older>
      <AddFolderSheet what="reader" open={adding} onClose={() => setAdding(false)} />
    </>
  )
}

/** The newest loads show their clips at once; older ones when somebody asks. */
const UNFOLDED = 2

const WHERE_LOOK = { twice: 'text-good', once: 'text-doubt', part: 'text-doubt', nowhere: 'text-stop' } as const

interface LoadSectionProps {
  readonly load: LoadView
  readonly productionId: string
  readonly unfolded: boolean
}

function LoadSection({ load, productionId, unfolded }: LoadSectionProps) {
  const [open, setOpen] = useState(unfolded)
  const isOwn = load.productionId === productionId
  const away = load.clips - load.clipsHere
  return (
    <section aria-label={`Load ${load.label}`} className="mb-10">
      <h2 className="mb-1 text-xl">{load.label}</h2>
      <p className="mb-3 text-quiet">
        {isOwn ? (
          <>
            {counted(load.clips, 'clip')}, {counted(load.fileCount, 'file')},{' '}
            <span className="figure">{formatBytes(load.sizeBytes)}</span>
            {away > 0 && `, ${counted(away, 'clip')} reassigned to other productions`}.{' '}
          </>
        ) : (
          <>
            {load.clipsHere} of its {counted(load.clips, 'clip')}, reassigned from{' '}
            <Link to={`/p/${load.productionId}/cards`} className="text-accent underline underline-offset-4">
              {load.productionTitle}
            </Link>
            , where the card is asked about.{' '}
          </>
        )}
        <strong className={WHERE_LOOK[load.whereabouts.state]}>{load.whereabouts.sentence}</strong>
      </p>
      {isOwn && (
        <>
          <LoadGear load={load} />
          <Findings findings={load.findings} loadId={load.id} />
        </>
      )}
      {open ? (
        <ClipTable load={load} productionId={productionId} />
      ) : (
        load.clips > 0 && (
          <Button onClick={() => setOpen(true)}>Show {counted(isOwn ? load.clips : load.clipsHere, 'clip')}</Button>
        )
      )}
    </section>
  )
}
