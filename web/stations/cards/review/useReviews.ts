import { useQueryClient } from '@tanstack/react-query'
import { useCallback, useRef, useState } from 'react'
import { UNSEEN, type ClipReview } from '../../../../core/cards/review/review'
import { reviewApi, type ReviewClip } from '../../../../contract/review'
import { call, type ApiProblem } from '../../../parts/asking/api'
import { askAgain } from '../../../parts/asking/askAgain'

export interface Reviews {
  readonly of: (clip: ReviewClip) => ClipReview
  readonly change: (clip: ReviewClip, patch: Partial<ClipReview>) => void
  readonly error: ApiProblem | null
}

/**
 * What was said of clips, as the last key left it. Each word is kept at once; words of one clip follow one another, so
 * that the last one stands.
 */
export function useReviews(): Reviews {
  const client = useQueryClient()
  const [said, setSaid] = useState<ReadonlyMap<string, ClipReview>>(new Map())
  const [error, setError] = useState<ApiProblem | null>(null)
  const newest = useRef(new Map<string, ClipReview>())
  const line = useRef(Promise.resolve())

  const of = useCallback((clip: ReviewClip) => said.get(clip.id) ?? clip.review, [said])

  const change = useCallback<Reviews['change']>(
    (clip, patch) => {
      const next = { ...UNSEEN, ...(newest.current.get(clip.id) ?? clip.review), ...patch }
      newest.current.set(clip.id, next)
      setSaid(new Map(newest.current))
      line.current = line.current.then(async () => {
        // A later word of the same clip says all of this and more.
        if (newest.current.get(clip.id) !== next) return
        const { verdict, ranges, note, shotId } = next
        const body = { verdict, ranges: [...ranges], note, shotId }
        try {
          await call(reviewApi.set, { params: { id: clip.id }, body, outlives: true })
          setError(null)
          await askAgain(client, { queryKey: ['review'] })
          // What the server keeps is what is shown, unless something was said meanwhile.
          if (newest.current.get(clip.id) === next) newest.current.delete(clip.id)
        } catch (problem) {
          setError(problem as ApiProblem)
        }
        setSaid(new Map(newest.current))
      })
    },
    [client],
  )
  return { of, change, error }
}
