import { useRef, useState, type KeyboardEvent, type MouseEvent } from 'react'
import type { OnChangeFn, Row, RowSelectionState } from '@tanstack/react-table'
import type { TABLE } from '../shortcuts'

interface MarkedRows<Data> {
  readonly rows: readonly Row<Data>[]
  readonly setSelection: OnChangeFn<RowSelectionState>
}

/** What a press does with the rows; to open and to copy them is the table's. */
type MarkKey = Exclude<keyof typeof TABLE, 'open' | 'copy'>

/**
 * Which row has the mark, and what presses choose from there: alone, with Shift all between, with Ctrl one more or
 * less. `active` is −1 until somebody pressed.
 */
export function useMarkedRows<Data>({ rows, setSelection }: MarkedRows<Data>) {
  const [active, setActive] = useState(-1)
  const anchor = useRef(0)
  const between = (from: number, to: number): RowSelectionState =>
    Object.fromEntries(rows.slice(Math.min(from, to), Math.max(from, to) + 1).map((row) => [row.id, true]))
  const choose = (at: number, how: 'alone' | 'toggle' | 'range' | 'move') => {
    const row = rows[at]
    if (!row) return
    setActive(at)
    if (how === 'range') setSelection(between(anchor.current, at))
    else if (how === 'alone') setSelection({ [row.id]: true })
    else if (how === 'toggle') row.toggleSelected()
    if (how === 'alone' || how === 'toggle') anchor.current = at
  }
  const pressAt = (event: MouseEvent, at: number) =>
    choose(at, event.shiftKey ? 'range' : event.ctrlKey || event.metaKey ? 'toggle' : 'alone')
  /** Does what a key says; where the mark went to, `undefined` when it stays. */
  const press = (pressed: MarkKey, event: KeyboardEvent, pageRows: number): number | undefined => {
    const [page, last] = [Math.max(1, pageRows), rows.length - 1]
    if (pressed === 'choose') choose(Math.max(0, active), 'toggle')
    else if (pressed === 'none') setSelection({})
    else if (pressed === 'all') setSelection(between(0, last))
    else {
      const steps = { down: active + 1, up: active - 1, pageDown: active + page, pageUp: active - page, first: 0, last }
      const at = Math.min(last, Math.max(0, steps[pressed]))
      choose(at, event.shiftKey ? 'range' : event.ctrlKey || event.metaKey ? 'move' : 'alone')
      return at
    }
    return undefined
  }
  return { active, press, pressAt }
}
