import type { Response } from 'express'
import { EDIT_HEADER } from '../../contract/edits'
import type { Edit } from '../../core/units/edit'
import type { Db } from '../db/connection'
import { edited, type Touched } from '../db/edits'

/** Tells the browser by which change what it did can be taken back. */
export function sayEdit(res: Response, edit: Edit | undefined): void {
  if (edit) res.set(EDIT_HEADER, encodeURIComponent(JSON.stringify(edit).toWellFormed()))
}

/** Writes what a person changes so that it can be taken back; `title` is a whole sentence of what became of it. */
export async function undoably<T>(
  { db, res }: { readonly db: Db; readonly res: Response },
  touched: readonly Touched[] | ((tx: Db) => Promise<readonly Touched[]>),
  title: string | ((answer: T) => string),
  write: (tx: Db) => Promise<T>,
): Promise<T> {
  const { answer, edit } = await edited(
    db,
    typeof touched === 'function' ? touched : () => Promise.resolve(touched),
    async (tx) => {
      const done = await write(tx)
      return { answer: done, title: typeof title === 'function' ? title(done) : title }
    },
  )
  sayEdit(res, edit)
  return answer
}
