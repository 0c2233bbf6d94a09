import { useSearchParams } from 'react-router'
import { cardsApi, type ReaderView } from '../../../contract/cards'
import type { LoadCopies } from '../../../contract/copies'
import type { TaskView } from '../../../contract/tasks'
import { Answer } from '../../parts/Answer'
import { isOpen, useTasks } from '../../trade/queries'
import { TaskLine } from '../../trade/TaskLine'
import { useAsk } from '../../parts/asking/useAsk'

export interface TakenIn {
  readonly reader: ReaderView | undefined
  /** The load that its card turned out to be; not while it is scanned. */
  readonly loadId: string | undefined
  readonly looking: boolean
  /** The scan of it. */
  readonly task: TaskView | undefined
}

/** The card that was taken in from where this page was opened. */
export function useTakenIn(): TakenIn {
  const [search] = useSearchParams()
  const id = search.get('take')
  const { data: readers } = useAsk(cardsApi.readers, {}, { enabled: id !== null })
  const { data: tasks = [] } = useTasks()
  const reader = readers?.find((one) => one.id === id)
  const task = tasks.find((one) => one.id === search.get('look'))
  const looking = reader !== undefined && (reader.looking || (task !== undefined && isOpen(task)))
  return { reader, loadId: looking ? undefined : (reader?.loadId ?? undefined), looking, task }
}

/** The first half of taking in, whose work stands at the foot of the page; the second is that of every load. */
export const TakingIn = ({ taken: { reader } }: { readonly taken: TakenIn }) => (
  <Answer why="Everything on it is listed, every clip is read, and nothing is written to it. Then it is copied to two drives, read back from both, and a clip waits here to be played. Leave the card in the reader until then.">
    “{reader?.cardName}” is being taken in.
  </Answer>
)

interface LookOfProps {
  readonly taken: TakenIn
  /** Loads of the production that is open. */
  readonly loads: readonly LoadCopies[]
}

/**
 * How the scan of it ended, where that is no load of this production: it failed, or the card was taken in for another
 * before.
 */
export const LookOf = ({ taken: { task, loadId }, loads }: LookOfProps) =>
  task && !loads.some((load) => load.loadId === loadId) ? (
    <div className="mb-6 border-y border-rule py-3">
      <TaskLine task={task} />
    </div>
  ) : null
