/** How much news there was before the first answer, and whether a later one was read after more. */
let first: string | undefined
let isMixed = false

export function noteNews(news: string | null): void {
  if (news === null) return
  first ??= news
  isMixed ||= news !== first
}

/** Whether all answers so far were read with exactly this much news before them, so that none of them missed any. */
export const missedNone = (news: string): boolean => !isMixed && (first === undefined || first === news)
