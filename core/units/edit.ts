/**
 * A change that can be taken back: what became of it, and how often it was turned since; at odd turns it is taken back.
 */
export interface Edit {
  readonly id: string
  /** A whole sentence: `“Keel” is off the list.` */
  readonly title: string
  readonly turn: number
}

export const isTakenBack = ({ turn }: Pick<Edit, 'turn'>): boolean => turn % 2 === 1

/** What has just become of it. */
export const editSentence = (edit: Pick<Edit, 'title' | 'turn'>): string =>
  edit.turn === 0 ? edit.title : `${isTakenBack(edit) ? 'Taken back' : 'Done again'}: ${edit.title}`
