import { useState } from 'react'
import type { InferType } from 'yup'
import {
  BENCH_FAULTS,
  benchApi,
  faultOrder,
  type BenchDeviceView,
  type BenchFault,
  type BenchView,
} from '../../../contract/bench'
import { formatByteRate, formatBytes, readBytes } from '../../../core/units/quantity'
import { Answer } from '../../parts/Answer'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { Empty } from '../../parts/Empty'
import { Choice } from '../../parts/controls/Choice'
import { FormChoice, FormUnit } from '../../parts/form/fields'
import { numberIn, useTyped } from '../../parts/form/useTyped'
import { Trouble } from '../../parts/Trouble'
import { useAsk } from '../../parts/asking/useAsk'
import { useInPieces } from '../../parts/asking/useInPieces'
import { useSend } from '../../parts/asking/useSend'
import { usePageTitle } from '../usePageTitle'

const FAULT_WORDS: Record<BenchFault, string> = {
  none: 'no fault',
  'flip-bit': 'one bit flips while writing',
  'truncate-write': 'a write is cut short, and nothing is said',
  'read-error': 'a read fails',
  unplug: 'unplugged in mid-work',
  full: 'full',
}

/** The practice bench: put cards in and out, unplug drives, cause faults, and see what Yendra says. */
export default function Bench() {
  usePageTitle('Practice bench')
  return (
    <Ask query={useAsk(benchApi.all, {})}>
      {(bench) =>
        bench.devices.length === 0 ? (
          <Empty title="There is no practice bench here.">
            It belongs to the demo. This is the empty database, which works on real folders only: add them at Cards and
            at Storage.
          </Empty>
        ) : (
          <Devices bench={bench} />
        )
      }
    </Ask>
  )
}

function Devices({ bench }: { bench: BenchView }) {
  const armed = bench.devices.filter((device) => device.fault !== 'none')
  const readers = bench.devices.filter((device) => device.role === 'reader')
  const [chosen, setChosen] = useState<string>()
  const devices = useInPieces(bench.devices, 3)
  const into = readers.find((reader) => reader.id === chosen) ?? readers[0]
  return (
    <>
      <Answer why="The devices below are folders that behave like a reader, drives, a phone and a cloud bucket: with a capacity, a speed, and a fault when you switch one on. Nothing here can hurt real footage.">
        {armed.length === 0
          ? 'Practise here: every device is healthy.'
          : `A fault waits in ${armed.map((device) => device.name).join(' and ')}.`}
      </Answer>
      <div className="mb-2 flex flex-wrap items-end justify-between gap-4">
        <div>
          {readers.map((reader) => (
            <h2 key={reader.id}>
              {reader.name}: {reader.card ? `“${reader.card}” is in it` : 'empty'}
            </h2>
          ))}
        </div>
        {readers.length > 1 && (
          <Choice
            label="Put cards into"
            className="w-48"
            value={into?.id ?? ''}
            onChange={setChosen}
            options={readers.map((reader) => ({ value: reader.id, label: reader.name }))}
          />
        )}
      </div>
      <CardBox bench={bench} into={into?.id} />
      <h2 className="mb-1">Devices and their faults</h2>
      <div>
        {devices.map((device) => (
          <DeviceRow key={device.id} device={device} />
        ))}
      </div>
    </>
  )
}

/** The cards of the bench: in a reader, or in their box. */
function CardBox({ bench, into }: { bench: BenchView; into: string | undefined }) {
  const insert = useSend(benchApi.insert)
  const eject = useSend(benchApi.eject)
  const readers = bench.devices.filter((device) => device.role === 'reader')
  const button = (card: BenchView['cards'][number]) => {
    const holder = readers.find((reader) => reader.card === card.name)
    return holder ? (
      <Button aria-label={`Take out ${card.name}`} onClick={() => eject.mutate({ params: { id: holder.id } })}>
        Take out
      </Button>
    ) : (
      <Button
        aria-label={`Put in ${card.name}`}
        data-walk="card"
        disabled={into === undefined}
        onClick={() => into !== undefined && insert.mutate({ params: { id: into }, body: { card: card.name } })}
      >
        Put in
      </Button>
    )
  }
  return (
    <>
      <Trouble error={insert.error ?? eject.error} />
      <table className="mb-9">
        <thead>
          <tr>
            <th>Card</th>
            <th>What is on it</th>
            <th>
              <span className="sr-only">Action</span>
            </th>
          </tr>
        </thead>
        <tbody>
          {bench.cards.map((card) => (
            <tr key={card.name}>
              <td className="font-semibold sm:whitespace-nowrap">{card.name}</td>
              <td className="text-quiet">{card.story}</td>
              <td className="!pr-0 text-right whitespace-nowrap">{button(card)}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </>
  )
}

function DeviceRow({ device }: { device: BenchDeviceView }) {
  const plug = useSend(benchApi.plug)
  const unplug = useSend(benchApi.unplug)
  const arm = useSend(benchApi.fault)
  return (
    <section
      aria-label={`Device ${device.name}`}
      className="grid items-end gap-x-6 gap-y-2 border-t border-rule py-3 lg:grid-cols-[1fr_auto]"
    >
      <div>
        <p className="font-bold">
          {device.name} <span className="font-normal text-quiet">{device.plugged ? 'plugged in' : 'unplugged'}</span>
          {device.fault !== 'none' && (
            <span className="text-stop">
              {' '}
              — {FAULT_WORDS[device.fault]} after {formatBytes(device.afterBytes)}
            </span>
          )}
        </p>
        <p className="figure text-sm text-quiet">
          {formatBytes(device.capacityBytes)}, reads {formatByteRate(device.readBytesPerSecond)}
          {device.role === 'volume' && `, writes ${formatByteRate(device.writeBytesPerSecond)}`}
        </p>
        {device.folder && <p className="figure text-sm break-all text-quiet">{device.folder}</p>}
        <Trouble error={arm.error ?? plug.error ?? unplug.error} />
      </div>
      <FaultForm device={device} arm={arm} plug={device.plugged ? unplug : plug} />
    </section>
  )
}

interface FaultFormProps {
  readonly device: BenchDeviceView
  readonly arm: ReturnType<typeof useSend<'/bench/:id/fault', InferType<typeof faultOrder>, undefined, undefined>>
  /** Plugs it in or out, whichever it is not. */
  readonly plug: ReturnType<typeof useSend<'/bench/:id/plug' | '/bench/:id/unplug', undefined, undefined, undefined>>
}

/** Which fault a device gets, after how many bytes. */
function FaultForm({ device, arm, plug }: FaultFormProps) {
  const usual = device.role === 'reader' ? 'read-error' : 'flip-bit'
  const { control, handleSubmit } = useTyped(
    faultOrder,
    { kind: device.fault === 'none' ? usual : device.fault, afterBytes: '20 MB' },
    (typed) => ({ ...typed, afterBytes: numberIn(typed.afterBytes, readBytes) }),
  )
  const faults = BENCH_FAULTS.filter(
    (fault) => fault !== 'none' && (device.role === 'volume' || fault === 'read-error' || fault === 'unplug'),
  )
  const save = handleSubmit((body) => arm.mutate({ params: { id: device.id }, body }))
  return (
    <form noValidate className="flex flex-wrap items-end gap-2" onSubmit={(event) => void save(event)}>
      <FormChoice
        control={control}
        name="kind"
        label="Fault"
        className="w-60"
        options={faults.map((fault) => ({ value: fault, label: FAULT_WORDS[fault] }))}
      />
      <FormUnit control={control} name="afterBytes" label="After" unit="bytes" className="-mb-[1.375rem] w-44" />
      <Button type="submit">Switch on</Button>
      {device.fault !== 'none' && (
        <Button onClick={() => arm.mutate({ params: { id: device.id }, body: { kind: 'none', afterBytes: 0 } })}>
          Switch off
        </Button>
      )}
      <Button
        aria-label={`${device.plugged ? 'Unplug' : 'Plug in'} ${device.name}`}
        onClick={() => plug.mutate({ params: { id: device.id } })}
      >
        {device.plugged ? 'Unplug' : 'Plug in'}
      </Button>
    </form>
  )
}
