import { listSentence } from '../../../../core/copies/lists/verdict'
import { fileNameOf } from '../../../../core/units/filePath'
import { timeIn, zoneHere } from '../../../../core/units/day'
import type { ListCheckView } from '../../../../contract/lists'
import { usePageTitle } from '../../../app/usePageTitle'
import { Answer } from '../../../parts/Answer'
import { Ask } from '../../../parts/asking/Ask'
import { isOpen, useTasks } from '../../../trade/queries'
import { TaskLine } from '../../../trade/TaskLine'
import { Earlier } from './Earlier'
import { Found } from './Found'
import { FolderAndList } from './FolderAndList'
import { useChecks, useListAddress } from './queries'
import { WrittenLists } from './WrittenLists'

/** Checksum lists of anybody: a folder compared with one, and lists of ours that any program reads. */
export default function Lists() {
  usePageTitle('Checksum lists')
  const checks = useChecks()
  const { check, show } = useListAddress()
  const { data: tasks = [] } = useTasks()
  const running = tasks.filter((task) => isOpen(task) && (task.kind === 'verify' || task.kind === 'list'))
  return (
    <Ask query={checks}>
      {({ rows }) => {
        const shown = rows.find((one) => one.id === check) ?? rows[0]
        return (
          <>
            {shown ? <CheckAnswer check={shown} /> : <NothingYet />}
            {running.map((task) => (
              <div key={task.id} className="mb-6">
                <TaskLine task={task} />
              </div>
            ))}
            {shown && <Found key={shown.id} check={shown} />}
            <FolderAndList onOrdered={() => show('')} />
            <Earlier checks={checks} shown={shown?.id} onShow={show} />
            <WrittenLists />
          </>
        )
      }}
    </Ask>
  )
}

const NothingYet = () => (
  <Answer why="Lists with MD5, SHA, xxHash or CRC-32 sums, whoever wrote them, and bags with their manifests. Nothing is written while a folder is compared.">
    Choose a folder, and the checksum list that it came with.
  </Answer>
)

function CheckAnswer({ check }: { check: ListCheckView }) {
  const { sentence, more } = listSentence(check)
  const of = check.list === '' ? 'its manifests' : `“${fileNameOf(check.list)}”`
  return (
    <Answer why={[`${check.folder} and ${of}, ${timeIn(zoneHere(), check.endedAt)}.`, ...more].join(' ')}>
      {fileNameOf(check.folder)}: {sentence}
    </Answer>
  )
}
