import { isIP } from 'node:net'
import { hostname } from 'node:os'
import type { RequestHandler } from 'express'
import { ProblemError } from './problem'

const LOCAL_NAMES = new Set(['127.0.0.1', 'localhost', '[::1]'])

const nameOf = (host: string) => host.replace(/:\d+$/, '')

/**
 * Behind an address of its own it is called by that or by the machine’s name; a name that somebody else may point here
 * is refused.
 */
const isOurs = (name: string, listening: string) =>
  LOCAL_NAMES.has(name) ||
  (listening !== '127.0.0.1' &&
    (isIP(name.replace(/^\[|\]$/g, '')) !== 0 || name.toLowerCase() === hostname().toLowerCase()))

const refused = () => new ProblemError(403, 'wrong-origin', 'Refused', 'Another site may not ask Yendra for anything.')

/**
 * Only this machine's own pages may ask: the Host is ours, and what another site sends is refused whatever it asks
 * for. `listening` is the address that the server listens on.
 */
export const guard =
  (listening: string): RequestHandler =>
  (req, _res, next) => {
    const host = req.headers.host ?? ''
    if (!isOurs(nameOf(host), listening))
      throw new ProblemError(
        421,
        'wrong-host',
        'Wrong address',
        listening === '127.0.0.1'
          ? 'Yendra answers at 127.0.0.1 only.'
          : 'Yendra answers at its address and its machine’s name only.',
      )
    const { origin } = req.headers
    if (origin !== undefined && origin !== `http://${host}`) throw refused()
    const site = req.headers['sec-fetch-site']
    const changes = !isAsking(req.method)
    // Pages may be opened from anywhere; what lies under them may be asked for by our own pages only.
    const openedAsPage = req.headers['sec-fetch-dest'] === 'document' && !req.path.startsWith('/api')
    if (site !== undefined && site !== 'same-origin' && !(site === 'none' && !changes) && !openedAsPage) throw refused()
    next()
  }

/** Whatever changes something comes as JSON, which no form of another site can send. */
export const onlyJson: RequestHandler = (req, _res, next) => {
  if (!isAsking(req.method) && !req.is('application/json'))
    throw new ProblemError(415, 'not-json', 'Wrong format', 'Send the request as application/json.')
  next()
}

const isAsking = (method: string) => ['GET', 'HEAD'].includes(method)
