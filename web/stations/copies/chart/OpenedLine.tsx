import { Tabs } from 'radix-ui'
import { Link } from 'react-router'
import { COPY_TROUBLES } from '../../../../core/copies/copyState'
import { timeIn, zoneHere } from '../../../../core/units/day'
import { formatBytes } from '../../../../core/units/quantity'
import type { ChartFile, ChartHead, ChartLine } from '../../../../contract/chart'
import { Ask } from '../../../parts/asking/Ask'
import { Older } from '../../../parts/table/Older'
import { useChecked, useFiles, useJournal } from './queries'

interface OpenedLineProps {
  readonly line: ChartLine
  readonly volumes: ChartHead['volumes']
}

const TAB =
  'min-h-8 rounded-box border border-rule px-3 py-1 data-[state=active]:border-ink data-[state=active]:bg-wash'

/** One load, checked now: its answer, what stands against it, its files on every volume, and what was ever done to it. */
export function OpenedLine({ line, volumes }: OpenedLineProps) {
  return (
    <>
      {line.loadId !== null && <OpenedLoad line={line} loadId={line.loadId} volumes={volumes} />}
      <InKeptChart line={line} />
    </>
  )
}

/** What only a kept chart says, and since when. */
function InKeptChart({ line: { label, kept, said, loadId, dangers } }: { line: ChartLine }) {
  if (!kept) return null
  return (
    <div role="group" aria-label={`“${label}” in a kept chart`} className={loadId === null ? '' : 'mt-4'}>
      <p className="mb-2 text-lg">{loadId === null ? dangers[0] : 'A kept chart says more than is proved.'}</p>
      <p className="mb-2 max-w-3xl">
        From “{kept.fileName}”, brought in {timeIn(zoneHere(), kept.at)}. It counts for no yes, and becomes proof only
        when the drive is connected and its files are read.
      </p>
      <ul className="list-disc pl-5">
        {said.map((copy) => (
          <li key={copy.name}>
            {copy.name}
            {copy.volumeId === null && ', a drive that is not known here'}: <q>{copy.said}</q>
          </li>
        ))}
      </ul>
    </div>
  )
}

function OpenedLoad({ line, volumes, loadId }: OpenedLineProps & { loadId: string }) {
  const checked = useChecked(loadId)
  return (
    <div role="group" aria-label={`“${line.label}” opened`}>
      <p className="mb-2 text-lg" role="status">
        {checked.error
          ? 'The card and the copies could not be checked just now.'
          : (checked.data?.clear.sentence ?? 'Checking the card and the connected copies now …')}{' '}
        <Link to={`/p/${line.production.id}/copies`} className="text-base text-accent underline underline-offset-4">
          To its copies
        </Link>
      </p>
      {line.dangers.length > 0 && (
        <ul className="mb-3 list-disc pl-5">
          {line.dangers.map((sentence) => (
            <li key={sentence}>{sentence}</li>
          ))}
        </ul>
      )}
      <Tabs.Root defaultValue={line.copies.some((copy) => copy.wrong) ? 'amiss' : 'journal'}>
        <Tabs.List aria-label={`What is known of “${line.label}”`} className="mb-3 flex flex-wrap gap-2 font-semibold">
          <Tabs.Trigger value="journal" className={TAB}>
            Journal
          </Tabs.Trigger>
          <Tabs.Trigger value="files" className={TAB}>
            File by file
          </Tabs.Trigger>
          <Tabs.Trigger value="amiss" className={TAB}>
            Files that are amiss
          </Tabs.Trigger>
        </Tabs.List>
        <Tabs.Content value="journal" tabIndex={-1}>
          <Journal loadId={loadId} />
        </Tabs.Content>
        {['files', 'amiss'].map((which) => (
          <Tabs.Content key={which} value={which} tabIndex={-1}>
            <Files line={line} loadId={loadId} volumes={volumes} troubled={which === 'amiss'} />
          </Tabs.Content>
        ))}
      </Tabs.Root>
    </div>
  )
}

function Journal({ loadId }: { loadId: string }) {
  const journal = useJournal(loadId)
  return (
    <Ask query={journal}>
      {({ rows }) => (
        <>
          <ol className="grid max-w-4xl gap-1" aria-label="Journal">
            {rows.map((entry) => (
              <li key={entry.id} className="grid gap-x-4 sm:grid-cols-[13rem_1fr]">
                <time dateTime={entry.at} className="figure text-quiet">
                  {timeIn(zoneHere(), entry.at)}
                </time>
                <span>{entry.sentence}</span>
              </li>
            ))}
          </ol>
          {rows.length === 0 && <p className="text-quiet">Nothing was done to it yet.</p>}
          <Older pages={journal}>Show what was before</Older>
        </>
      )}
    </Ask>
  )
}

function Files({ line, loadId, volumes, troubled }: OpenedLineProps & { loadId: string; troubled: boolean }) {
  const files = useFiles(loadId, troubled)
  const columns = volumes.filter((volume) => line.copies.some((copy) => copy.volumeId === volume.id))
  return (
    <Ask query={files}>
      {({ rows }) =>
        rows.length === 0 ? (
          <p className="text-quiet">{troubled ? 'No file is amiss on any volume.' : 'There is no file.'}</p>
        ) : (
          <>
            <table className="w-full text-sm" aria-label="Files">
              <thead>
                <tr>
                  <th>File</th>
                  <th className="text-right">Bytes</th>
                  {columns.map((volume) => (
                    <th key={volume.id}>{volume.name}</th>
                  ))}
                </tr>
              </thead>
              <tbody>
                {rows.map((file) => (
                  <tr key={file.id} data-file={file.path}>
                    <td className="break-all">
                      {file.path}
                      {!file.onCard && <span className="text-quiet"> (no longer on the card)</span>}
                    </td>
                    <td className="figure text-right whitespace-nowrap">{formatBytes(file.sizeBytes)}</td>
                    {columns.map((volume) => (
                      <td key={volume.id}>
                        <Standing on={file.on.find((one) => one.volumeId === volume.id)} />
                      </td>
                    ))}
                  </tr>
                ))}
              </tbody>
            </table>
            <Older pages={files}>Show further files</Older>
          </>
        )
      }
    </Ask>
  )
}

function Standing({ on }: { on: ChartFile['on'][number] | undefined }) {
  if (!on) return <span className="text-quiet">not copied</span>
  const trouble = COPY_TROUBLES[on.standing as keyof typeof COPY_TROUBLES]
  if (trouble) return <span className="text-stop">{trouble}</span>
  return (
    <span className="figure text-quiet">
      proved {timeIn(zoneHere(), on.provedAt)}
      {on.standing === 'memory' && ', perhaps from memory'}
    </span>
  )
}
