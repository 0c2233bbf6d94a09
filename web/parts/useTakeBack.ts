import type { Edit } from '../../core/units/edit'
import { editsApi } from '../../contract/edits'
import { dropEdit, hideLatest, useEdits } from './edits'
import { useSend } from './useSend'

/** Takes the last change of this window back, and does again what was taken back last. */
export function useTakeBack() {
  const { back, again, latest } = useEdits()
  const send = useSend(editsApi.takeBack)
  const turn = (edit: Edit | undefined): boolean => {
    if (!edit || send.isPending) return false
    send.mutate(
      { params: { id: edit.id }, body: undefined },
      // What was changed since, or is gone, would be refused again.
      { onError: ({ problem }) => problem.status < 500 && dropEdit(edit.id), onSuccess: () => dropEdit(edit.id) },
    )
    return true
  }
  return {
    latest,
    /** What could not be turned, until something else is changed. */
    error: latest && latest.id !== send.variables?.params.id ? null : send.error,
    busy: send.isPending,
    turn,
    takeBack: () => turn(back.at(-1)),
    doAgain: () => turn(again.at(-1)),
    /** What is said of it is read. */
    hide: () => {
      hideLatest()
      send.reset()
    },
  }
}
