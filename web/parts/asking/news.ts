/** How much news there was before each of the answers that were given so far. */
const read = new Set<string>()

export const noteNews = (news: string | null): void => {
  if (news !== null) read.add(news)
}

/** Whether all answers so far were read with exactly this much news before them, so that none of them missed any. */
export const missedNone = (news: string): boolean => [...read].every((one) => one === news)
