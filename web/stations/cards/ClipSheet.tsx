import { colourRemark, remarksOf } from '../../../core/media/remarks'
import { propertiesOf, type PropertyGroup } from '../../../core/media/properties'
import type { MediaFacts } from '../../../core/media/facts'
import { cardsApi } from '../../../contract/cards'
import { Ask } from '../../parts/asking/Ask'
import { Button } from '../../parts/controls/Button'
import { isOpen, useTasks } from '../../trade/queries'
import { Sheet } from '../../parts/layers/Sheet'
import { TaskLine } from '../../trade/TaskLine'
import { ToolLines } from '../../trade/ToolLines'
import { Trouble } from '../../parts/Trouble'
import { useSend } from '../../parts/asking/useSend'
import { useClip } from '../../trade/useClip'

interface ClipSheetProps {
  readonly clipId: string | undefined
  readonly name: string
  readonly onClose: () => void
}

/** Everything that was read of one clip, each with where it was read. */
export function ClipSheet({ clipId, name, onClose }: ClipSheetProps) {
  return (
    <Sheet
      title={name}
      about="What the file says of itself and what was measured of it."
      open={clipId !== undefined}
      onClose={onClose}
      width="max-w-3xl"
    >
      {clipId !== undefined && <Body clipId={clipId} />}
    </Sheet>
  )
}

function Body({ clipId }: { clipId: string }) {
  return (
    <Ask query={useClip(clipId)}>
      {({ facts, trouble, cut, toolLines }) =>
        facts ? (
          <>
            {cut && <p className="mb-2 text-stop">It is not whole: {cut}.</p>}
            <Remarks facts={facts} />
            {propertiesOf(facts).map((group) => (
              <Group key={group.title} group={group} />
            ))}
            {facts.video && !facts.sequence && <Counting clipId={clipId} />}
          </>
        ) : (
          <>
            <p className="text-stop">It cannot be read: {trouble}.</p>
            {cut && <p className="mt-1 text-stop">It is not whole: {cut}.</p>}
            <ToolLines lines={toolLines} />
          </>
        )
      }
    </Ask>
  )
}

function Remarks({ facts }: { facts: MediaFacts }) {
  const colours = facts.video && colourRemark(facts.video)
  const sentences = [...remarksOf(facts).map((remark) => remark.sentence), ...(colours ? [colours] : [])]
  if (sentences.length === 0) return <p className="mb-4">Nothing unusual was found.</p>
  return (
    <ul className="mb-4 list-disc pl-5">
      {sentences.map((sentence) => (
        <li key={sentence}>{sentence}</li>
      ))}
    </ul>
  )
}

const Group = ({ group: { title, properties } }: { group: PropertyGroup }) => (
  <section aria-label={title} className="mb-5">
    <h3 className="border-b border-ink pb-1 font-bold">{title}</h3>
    <dl>
      {properties.map(({ name, value, source }) => (
        <div
          key={name}
          className="grid grid-cols-[9rem_1fr] items-baseline gap-x-4 border-b border-rule py-1 text-sm sm:grid-cols-[10rem_1fr_13rem]"
        >
          <dt className="text-quiet">{name}</dt>
          <dd className={`break-words ${source === '' ? 'text-quiet' : 'figure'}`}>{value}</dd>
          <dd className="text-quiet max-sm:col-start-2">{source}</dd>
        </div>
      ))}
    </dl>
  </section>
)

/** Counting reads the whole file, so somebody has to ask for it. */
function Counting({ clipId }: { clipId: string }) {
  const send = useSend(cardsApi.count)
  const { data: tasks = [] } = useTasks()
  const task = tasks.find((one) => one.id === send.data?.taskId)
  return (
    <>
      {task && <TaskLine task={task} />}
      <Trouble error={send.error} />
      {(!task || !isOpen(task)) && (
        <Button disabled={send.isPending} onClick={() => send.mutate({ params: { id: clipId } })}>
          Count the frames one by one
        </Button>
      )}
    </>
  )
}
