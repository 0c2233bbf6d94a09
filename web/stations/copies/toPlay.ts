import type { CopyView, LoadCopies } from '../../../contract/copies'

/** The copy that a clip is to be played from: two are proved, and of none anything was seen. */
export const toPlay = ({ copies }: LoadCopies): CopyView | undefined =>
  copies.filter((copy) => copy.mark >= 2).length >= 2 && !copies.some((copy) => copy.mark === 3)
    ? copies.find((copy) => copy.mark === 2 && copy.connected)
    : undefined
