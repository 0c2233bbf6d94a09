import { timingSafeEqual } from 'node:crypto'
import { parse } from 'cookie'
import type { Request, RequestHandler } from 'express'
import { ProblemError } from './problem'

const HOW_IN =
  'This Yendra has a key. Open the address that the start command printed: it carries the key, and ' +
  'this browser keeps it from then on.'

const PAGE = `<!doctype html><html lang="en"><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>Yendra: access key needed</title><h1>An access key is needed.</h1><p>${HOW_IN}</p></html>`

/** Cookies are shared by all ports of a machine: each start has its own. */
const cookieOf = (req: Request) => `yendra-key-${req.socket.localPort ?? 0}`

const isKey = (given: unknown, key: string): boolean => {
  if (typeof given !== 'string') return false
  const [ours, theirs] = [Buffer.from(key), Buffer.from(given)]
  return ours.length === theirs.length && timingSafeEqual(ours, theirs)
}

/**
 * Lets in whoever has the key: an address with `?key=…` is answered with a cookie and the address without it; with the
 * cookie everything is open; without it the API answers 401 and pages say how to get in.
 */
export const accessKey =
  (key: string): RequestHandler =>
  (req, res, next) => {
    if (isKey(parse(req.headers.cookie ?? '')[cookieOf(req)], key)) return next()
    if (req.method === 'GET' && isKey(req.query.key, key)) {
      res.cookie(cookieOf(req), key, { httpOnly: true, sameSite: 'strict', path: '/', maxAge: 365 * 86_400_000 })
      const rest = new URLSearchParams(
        Object.entries(req.query).flatMap(([name, value]) =>
          name !== 'key' && typeof value === 'string' ? [[name, value]] : [],
        ),
      )
      // Two slashes at its beginning would be another site (WHATWG URL, 4.4).
      const here = req.path.replace(/^[/\\]+/, '/')
      res.redirect(303, rest.size > 0 ? `${here}?${rest.toString()}` : here)
      return
    }
    if (req.path.startsWith('/api') || req.path.startsWith('/assets'))
      throw new ProblemError(401, 'locked', 'An access key is needed', HOW_IN)
    res.status(401).set('Cache-Control', 'no-store').type('html').send(PAGE)
  }
