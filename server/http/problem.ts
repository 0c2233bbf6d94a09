import type { ErrorRequestHandler, RequestHandler } from 'express'
import { ValidationError } from 'yup'
import type { Problem } from '../../contract/problem'
import { NoSuchPage } from '../db/page'
import { isTimeout, NoAnswer } from '../db/pool'
import { CannotWork } from '../media/cannotWork'
import { UnlikelyFolder, WrongFolder } from '../media/register'
import { log } from '../log'

/** An answer that went wrong, thrown by a route; becomes problem details (RFC 9457). */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly slug: string,
    readonly title: string,
    detail: string,
    readonly field?: string,
  ) {
    super(detail)
  }
}

/** 404: that is not known here. */
export const notFound = (what: string) =>
  new ProblemError(
    404,
    'not-found',
    'Not found',
    `${what} is not known here. Go back to the overview and open it from there.`,
  )
/** 409: it cannot be done now, with the reason. */
export const conflict = (detail: string) => new ProblemError(409, 'conflict', 'Not possible now', detail)
/** 409: it is not any more what it was when the change of it began. */
export const changedElsewhere = () =>
  new ProblemError(
    409,
    'changed-elsewhere',
    'It was changed elsewhere',
    'This was changed in another window meanwhile, so nothing was kept. Copy what you typed if it is ' +
      'long, look at it as it is now, and change it again.',
  )
/** 422: something that was sent is wrong, with the field. */
export const invalid = (detail: string, field?: string) =>
  new ProblemError(422, 'invalid', 'Something is missing or wrong', detail, field)

/** 404 for an address where there is nothing. */
export const missing: RequestHandler = (req) => {
  throw new ProblemError(404, 'not-found', 'Not found', `There is nothing at ${req.path.slice(0, 200)}.`)
}

function problemOf(error: unknown): Problem {
  const problem = (status: number, slug: string, title: string, detail: string, field?: string): Problem => ({
    type: `/problems/${slug}`,
    title,
    status,
    detail,
    ...(field ? { field } : {}),
  })
  if (error instanceof ProblemError) return problem(error.status, error.slug, error.title, error.message, error.field)
  if (error instanceof WrongFolder)
    return problem(422, 'invalid', 'Something is missing or wrong', error.message, 'path')
  if (error instanceof UnlikelyFolder) return problem(409, 'not-sure', 'Is this the one?', error.message, 'path')
  if (error instanceof NoSuchPage)
    return problem(
      422,
      'invalid',
      'Something is missing or wrong',
      'That is no page of this list. Ask for the first one.',
      'after',
    )
  if (error instanceof CannotWork) return problem(409, 'conflict', 'Not possible now', error.message)
  if (error instanceof ValidationError)
    return problem(422, 'invalid', 'Something is missing or wrong', plainer(error), error.path || undefined)
  if (error instanceof NoAnswer || isTimeout(error))
    return problem(
      503,
      'no-answer',
      'No answer',
      'No: the database of Yendra does not answer, so that nothing is known of cards and copies now. ' +
        'Format nothing. Wait a moment, then ask again; if it stays so, stop Yendra and start it again.',
    )
  const status = error instanceof Error && 'status' in error && typeof error.status === 'number' ? error.status : 500
  if (error instanceof URIError)
    return problem(400, 'unreadable', 'Unreadable request', 'The address holds a % that is no escape. Write it as %25.')
  if (status === 400) return problem(400, 'unreadable', 'Unreadable request', 'The request is not valid JSON.')
  if (status === 416)
    return problem(
      416,
      'no-such-piece',
      'No such piece',
      'The file has no bytes there. Ask for a piece that lies in it.',
    )
  if (status === 413) return problem(413, 'too-large', 'Too large', 'The request is larger than 1 MB.')
  if (status >= 400 && status < 500)
    return problem(status, 'refused', 'Refused', error instanceof Error ? error.message : 'The request was refused.')
  log.error(error, 'request failed')
  return problem(
    500,
    'failed',
    'Something broke',
    'Yendra could not do that, and nothing was changed. Try again; if it happens twice, look at the ' +
      'log of the start command.',
  )
}

/** The validator's own wording speaks of types; people get a sentence. */
function plainer({ message, path }: ValidationError): string {
  const keys = /unspecified keys: (.*)/.exec(message)
  if (keys) return `The request has fields that are not known: ${shortened(keys[1] ?? '')}.`
  const type = /must be a[n]? `(\w+)` type/.exec(message)
  if (type) return `The field ${path || 'body'} must be of the kind ${type[1]}.`
  return message.split('\n')[0] ?? message
}

const MOST_NAMED = 200
const shortened = (text: string) => {
  const letters = [...text]
  return letters.length > MOST_NAMED ? `${letters.slice(0, MOST_NAMED).join('')} …` : text
}

/** Turns whatever was thrown into problem details (RFC 9457). */
export const answerProblem: ErrorRequestHandler = (error: unknown, _req, res, next) => {
  if (res.headersSent) {
    next(error)
    return
  }
  const problem = problemOf(error)
  res.status(problem.status).type('application/problem+json').send(JSON.stringify(problem))
}
