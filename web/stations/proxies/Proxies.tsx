import { ChevronRight } from 'lucide-react'
import { useDeferredValue, useState } from 'react'
import { proxySentence } from '../../../core/proxies/sentence'
import { frameRateLabel, parseFrameRate } from '../../../core/units/frameRate'
import { counted, formatBytes } from '../../../core/units/quantity'
import { cardsApi } from '../../../contract/cards'
import { addressOf } from '../../../contract/endpoint'
import { proxiesApi, type ProxiesAsked, type ProxyCounts, type ProxyView } from '../../../contract/proxies'
import type { StorageView } from '../../../contract/storage'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { CheckTable } from '../../trade/CheckTable'
import { CardFirst } from '../../trade/CardFirst'
import { Empty } from '../../parts/Empty'
import { LongList } from '../../parts/table/LongList'
import { Narrow } from '../../parts/table/Narrow'
import { isOpen, useStorage, useTasks } from '../../trade/queries'
import { TaskLine } from '../../trade/TaskLine'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { preferredVolume, VolumeChoice } from '../../trade/VolumeChoice'
import { useProxies, useProxyCounts } from './queries'

/** Station 4: small files to edit with, each compared with its original. */
export default function Proxies({ productionId }: { productionId: string }) {
  return (
    <Ask query={useProxyCounts(productionId)}>
      {(counts) =>
        counts.wanted + counts.without === 0 ? (
          <Empty
            title="No clips to make proxies of."
            shows="proxies"
            action={<CardFirst productionId={productionId} />}
          >
            A proxy is a small file that stands in for a heavy original while editing. It is made from a proved copy,
            never from the card: a card is scanned and copied first.
          </Empty>
        ) : (
          <>
            <Making counts={counts} productionId={productionId} />
            <ProxyList counts={counts} productionId={productionId} />
          </>
        )
      }
    </Ask>
  )
}

/** What a batch will have: as measured on a few seconds, else the most it can be. */
const expectedText = ({ expected, openBytes }: ProxyCounts) =>
  expected ? `about ${formatBytes(expected.bytes)}` : `at most ${formatBytes(openBytes)}`

interface ProxiesProps {
  readonly counts: ProxyCounts
  readonly productionId: string
}

function Making({ counts, productionId }: ProxiesProps) {
  const { data: storage } = useStorage(productionId)
  const { data: tasks = [] } = useTasks()
  const open = counts.wanted - counts.equal - counts.unchecked
  const ours = tasks.filter(
    (task) =>
      (task.kind === 'proxy' || task.kind === 'estimate' || task.kind === 'recheck') &&
      task.productionId === productionId,
  )
  const working = ours.filter(isOpen)
  const ended = ours.find((task) => task.state === 'failed')
  return (
    <>
      <Answer
        why="H.264 at half the original’s size, aspect kept, every frame at its own time, all sound tracks, colours and start timecode kept. Folder and base name stay those of the original, so that an editing program can swap them; the final render must use the originals."
        action={
          open + counts.unchecked > 0 &&
          storage && (
            <Orders
              counts={counts}
              open={open}
              productionId={productionId}
              storage={storage}
              busy={working.length > 0}
            />
          )
        }
      >
        {proxySentence({ ...counts, making: working.filter((task) => task.kind === 'proxy').length })}
      </Answer>
      {working.length === 0 && counts.equal + counts.differ > 0 && (
        <CompareAll productionId={productionId} proxies={counts.equal + counts.differ + counts.unchecked} />
      )}
      {working.length > 0 && (
        <div className="mb-6 space-y-3 border-y border-rule py-3">
          {working
            .slice(0, 3)
            .reverse()
            .map((task) => (
              <TaskLine key={task.id} task={task} />
            ))}
          {working.length > 3 && <p className="text-quiet">and {working.length - 3} more waiting</p>}
        </div>
      )}
      {working.length === 0 && ended && (
        <div className="mb-6 border-y border-rule py-3">
          <TaskLine task={ended} />
        </div>
      )}
    </>
  )
}

/** A drive may have damaged a proxy that was equal when it was made. */
function CompareAll({ productionId, proxies }: { productionId: string; proxies: number }) {
  const recheck = useSend(proxiesApi.recheck)
  return (
    <div className="-mt-3 mb-4">
      <Button
        look="quiet"
        disabled={recheck.isPending}
        onClick={() => recheck.mutate({ params: { id: productionId }, body: { all: true } })}
      >
        Compare {proxies === 1 ? 'the proxy' : `all ${proxies} proxies`} with{' '}
        {proxies === 1 ? 'its original' : 'their originals'} again
      </Button>
      <Trouble error={recheck.error} />
    </div>
  )
}

interface OrdersProps extends ProxiesProps {
  /** Clips that have no proxy, or one that differs. */
  readonly open: number
  readonly storage: StorageView
  readonly busy: boolean
}

/** What can be ordered: to compare, to make, to do without, or to measure first what it comes to. */
function Orders({ counts, open, productionId, storage, busy }: OrdersProps) {
  const send = useSend(proxiesApi.make)
  const estimate = useSend(proxiesApi.estimate)
  const recheck = useSend(proxiesApi.recheck)
  const without = useSend(proxiesApi.doWithout)
  const [choice, setChoice] = useState<string>()
  const volumeId = choice ?? preferredVolume(storage.volumes, 'edit')
  const params = { id: productionId }
  return (
    <div>
      <div className="flex flex-wrap items-end gap-3">
        {counts.unchecked > 0 && (
          <Button
            look="primary"
            disabled={busy || recheck.isPending}
            onClick={() => recheck.mutate({ params, body: { all: false } })}
          >
            Compare {counted(counts.unchecked, 'proxy', 'proxies')} now
          </Button>
        )}
        <VolumeChoice label="Onto" volumes={storage.volumes} value={volumeId} onChange={setChoice} />
        <Button
          look={counts.unchecked > 0 ? undefined : 'primary'}
          disabled={busy || send.isPending || !volumeId}
          onClick={() => send.mutate({ params: {}, body: { productionId, volumeId } })}
        >
          Make {counted(open, 'proxy', 'proxies')}, {expectedText(counts)}
        </Button>
        {open > 0 && (
          <Button
            disabled={busy || without.isPending}
            onClick={() => without.mutate({ params: {}, body: { productionId, without: true } })}
          >
            Edit without {open === 1 ? 'it' : 'them'}
          </Button>
        )}
        {!counts.expected && (
          <Button disabled={busy || estimate.isPending} onClick={() => estimate.mutate({ params })}>
            Measure a few seconds first
          </Button>
        )}
      </div>
      <Trouble error={send.error ?? estimate.error ?? recheck.error ?? without.error} />
    </div>
  )
}

const SHOWN: readonly { value: ProxiesAsked['show']; label: string }[] = [
  { value: 'all', label: 'All clips' },
  { value: 'none', label: 'Without a proxy' },
  { value: 'unchecked', label: 'To be checked' },
  { value: 'differs', label: 'Proxy differs' },
  { value: 'equal', label: 'Proxy is equal' },
  { value: 'without', label: 'Edited without one' },
]

function ProxyList({ counts, productionId }: ProxiesProps) {
  const [show, setShow] = useState<ProxiesAsked['show']>('all')
  const [typed, setTyped] = useState('')
  const q = useDeferredValue(typed.trim())
  const pages = useProxies(productionId, { show, q })
  return (
    <>
      <Narrow
        count={counts.wanted + counts.without}
        typed={typed}
        onType={setTyped}
        show={show}
        options={SHOWN}
        onShow={setShow}
      />
      <Ask query={pages}>
        {({ rows }) =>
          rows.length === 0 ? (
            <p className="border-t border-ink py-3 text-quiet">No such clip.</p>
          ) : (
            <LongList label="Clips and their proxies" rows={rows} rowId={(row) => row.clipId} rowPx={81} pages={pages}>
              {(row) => <ProxyRow proxy={row} />}
            </LongList>
          )
        }
      </Ask>
    </>
  )
}

function ProxyRow({ proxy }: { proxy: ProxyView }) {
  const rate = parseFrameRate(proxy.rate)
  const without = useSend(proxiesApi.doWithout)
  return (
    <div className="border-b border-rule" data-proxy={proxy.clipName} data-state={proxy.made?.state}>
      <details className="group py-3">
        <summary className="grid list-none grid-cols-[auto_1fr] items-center gap-x-4 gap-y-1 md:grid-cols-[auto_7rem_11rem_1fr_13rem]">
          <ChevronRight className="size-4 text-quiet transition-transform group-open:rotate-90" aria-hidden />
          <Picture proxy={proxy} />
          <span className="max-md:col-start-2">
            <span className="figure block font-semibold">{proxy.clipName}</span>
            <span className="text-sm text-quiet">{[proxy.loadLabel, ...proxy.remarks.slice(0, 2)].join(', ')}</span>
          </span>
          <span className="figure max-md:col-start-2">
            {proxy.frame} → {proxy.wanted.frame}, {rate && frameRateLabel(rate)}
            <span className="block text-quiet">
              {formatBytes(proxy.sizeBytes)} →{' '}
              {proxy.made ? formatBytes(proxy.made.sizeBytes) : `at most ${formatBytes(proxy.wanted.mostBytes)}`}
            </span>
          </span>
          <span className="max-md:col-start-2">
            <StateWords proxy={proxy} />
          </span>
        </summary>
        <div className="mt-3 pl-8">
          {proxy.made ? (
            <>
              <p className="figure mb-2 text-sm break-all text-quiet">
                {proxy.made.volumeName}: {proxy.made.path}
              </p>
              <CheckTable checks={proxy.made.checks} />
            </>
          ) : (
            <p className="text-quiet">
              The time of every frame, rate, length, colours, all sound tracks and the start timecode are compared with
              the original once it is made.
            </p>
          )}
          {proxy.wanted.changes.length > 0 && (
            <p className="mt-2 text-quiet">Besides its size: {proxy.wanted.changes.join(' ')}</p>
          )}
          {(proxy.without || proxy.made?.state !== 'equal') && (
            <div className="mt-3">
              <Trouble error={without.error} />
              <Button
                disabled={without.isPending}
                onClick={() =>
                  without.mutate({ params: {}, body: { clipIds: [proxy.clipId], without: !proxy.without } })
                }
              >
                {proxy.without ? 'A proxy is wanted' : 'Edit without a proxy'}
              </Button>
            </div>
          )}
        </div>
      </details>
    </div>
  )
}

const Picture = ({ proxy }: { proxy: ProxyView }) =>
  proxy.pictureMade ? (
    <img
      src={addressOf(cardsApi.picture, { id: proxy.clipId })}
      alt=""
      loading="lazy"
      className="h-14 w-25 rounded-box object-cover"
    />
  ) : (
    <span className="h-14 w-25 border border-dashed border-rule" />
  )

function StateWords({ proxy: { made, without } }: { proxy: ProxyView }) {
  if (without) return <span className="text-quiet">edited without one</span>
  if (!made) return <span className="text-quiet">not made</span>
  if (made.state === 'equal') return <span className="text-good">equal in all {made.checks.length} checks</span>
  if (made.state === 'unchecked') return <span className="text-quiet">sound not compared yet</span>
  const failing = made.checks.filter((check) => !check.pass).length
  return <strong className="text-stop">{counted(failing, 'check')} failed</strong>
}
