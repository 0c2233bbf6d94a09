import { useRef } from 'react'
import { editsApi } from '../../../contract/edits'
import { ApiProblem } from './api'
import { dropEdit, editsSettled, hideLatest, lastEdit, useEdits } from './edits'
import { useSend } from './useSend'

/** Takes the last change of this window back, and does again what was taken back last. */
export function useTakeBack() {
  const { latest } = useEdits()
  const send = useSend(editsApi.takeBack)
  const line = useRef(Promise.resolve())
  /** One press after the other, each after what was on its way when it was pressed. */
  const turn = (find: () => string | undefined) => {
    line.current = line.current.then(editsSettled).then(async () => {
      const id = find()
      if (id === undefined) return
      await send.mutateAsync({ params: { id } }).then(
        () => dropEdit(id),
        // What was changed since, or is gone, would be refused again.
        (problem: unknown) => isFinal(problem) && dropEdit(id),
      )
    })
  }
  return {
    latest,
    /** What could not be turned, until something else is changed. */
    error: latest && latest.id !== send.variables?.params.id ? null : send.error,
    busy: send.isPending,

    turn: (id: string) => turn(() => id),
    takeBack: () => turn(() => lastEdit('back')?.id),
    doAgain: () => turn(() => lastEdit('again')?.id),
    /** What is said of it is read. */
    hide: () => {
      hideLatest()
      send.reset()
    },
  }
}

const isFinal = (problem: unknown) => problem instanceof ApiProblem && problem.problem.status < 500
