import { counted } from '../units/quantity'

export interface ShelfAnswer {
  readonly sentence: string
  readonly why: string
}

/** How safe the shelf is: no bag, all bags on one volume, or on two and more. Common practice, no source. */
export function shelfAnswer(bags: number, volumeNames: readonly string[], oneDrive = false): ShelfAnswer {
  if (bags === 0)
    return { sentence: 'No film is on the shelf yet.', why: 'Put each film on two volumes, one of them off-site.' }
  return {
    sentence: `${counted(bags, 'bag is', 'bags are')} on ${volumeNames.join(' and ')}.`,
    why:
      volumeNames.length < 2
        ? 'One volume is not enough: put it on a second one that is kept elsewhere.'
        : oneDrive
          ? 'All are on one drive: put it on another drive that is kept elsewhere.'
          : 'Rehearse a restore: open one clip from a bag each quarter.',
  }
}
