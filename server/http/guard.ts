import type { RequestHandler } from 'express'
import { ProblemError } from './problem'

const LOCAL_NAMES = new Set(['127.0.0.1', 'localhost'])

const nameOf = (host: string) => host.replace(/:\d+$/, '')

/** Only this machine's own pages may ask: the Host is local, and whatever changes something comes from the same origin as JSON. */
export const guard: RequestHandler = (req, _res, next) => {
  const host = req.headers.host ?? ''
  if (!LOCAL_NAMES.has(nameOf(host)))
    throw new ProblemError(421, 'wrong-host', 'Wrong address', 'Yendra answers at 127.0.0.1 only.')
  const { origin } = req.headers
  if (origin !== undefined && origin !== `http://${host}`)
    throw new ProblemError(403, 'wrong-origin', 'Refused', 'Another site may not ask Yendra for anything.')
  const changes = !['GET', 'HEAD'].includes(req.method)
  if (changes && req.headers['sec-fetch-site'] !== undefined && req.headers['sec-fetch-site'] !== 'same-origin') {
    throw new ProblemError(403, 'wrong-origin', 'Refused', 'Another site may not ask Yendra for anything.')
  }
  if (changes && !req.is('application/json'))
    throw new ProblemError(415, 'not-json', 'Wrong format', 'Send the request as application/json.')
  next()
}
