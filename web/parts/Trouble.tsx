import { ApiProblem } from './asking/api'

/** Says what went wrong and what to do; nothing when all is well. */
export function Trouble({ error }: { error: Error | null }) {
  if (!error) return null
  return (
    <p role="alert" className="my-3 border-l-4 border-stop bg-sheet px-3 py-2">
      <strong className="text-stop">{error instanceof ApiProblem ? error.problem.title : 'That did not work'}.</strong>{' '}
      {error.message}
    </p>
  )
}
