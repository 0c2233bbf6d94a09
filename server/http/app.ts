import { randomBytes } from 'node:crypto'
import compression from 'compression'
import express, { Router, type Express, type Response } from 'express'
import helmet from 'helmet'
import { ENDPOINTS, EVENTS_PATH } from '../../contract/api'
import { benchRoutes } from './overall/bench'
import { pictureRoutes } from './cards/pictures'
import { noticedRoutes, readerRoutes } from './cards/readers'
import { cardRoutes } from './cards/routes'
import { reviewRoutes } from './cards/review'
import { rigRoutes } from './cards/rigs'
import { sortedRoutes } from './cards/sorted'
import { watchRoutes } from './cards/watch'
import type { Context } from './context'
import { accessKey } from './accessKey'
import { editRoutes } from './overall/edits'
import { chartRoutes } from './copies/chart'
import { listRoutes } from './copies/lists'
import { copyRoutes } from './copies/routes'
import type { EventStream } from './events'
import { exportRoutes } from './exports/routes'
import { gearRoutes } from './overall/gear'
import { guard, onlyJson } from './guard'
import { lockerRoutes } from './overall/locker'
import { servePages } from './pages'
import { answerProblem, missing, ProblemError } from './problem'
import { productionRoutes } from './overall/productions'
import { proxyRoutes } from './proxies/routes'
import { searchRoutes } from './overall/search'
import { shelfRoutes } from './shelf/routes'
import { dayRoutes } from './shoot/day'
import { planRoutes } from './shoot/plan'
import { shotRoutes } from './shoot/shots'
import { folderRoutes } from './storage/folders'
import { storageRoutes } from './storage/routes'
import { stateRoutes } from './overall/state'
import { taskRoutes } from './overall/tasks'

/** What the application needs from the program that starts it. */
export interface Outside {
  /** Where the built pages lie. */
  readonly webFolder: string
  /** The address that the server listens on. */
  readonly listening: string
  /** What lets in; without one everybody on this machine is let in. */
  readonly key: string | undefined
}

/** What a page may load, and from where: itself, and nothing else. */
const headers = () =>
  helmet({
    strictTransportSecurity: false,
    contentSecurityPolicy: {
      useDefaults: false,
      directives: {
        defaultSrc: ["'none'"],
        scriptSrc: ["'self'"],
        styleSrc: ["'self'", (_req, res) => `'nonce-${(res as Response).locals.nonce as string}'`],
        // The chart library draws its export pictures from blobs and data.
        imgSrc: ["'self'", 'data:', 'blob:'],
        mediaSrc: ["'self'"],
        fontSrc: ["'self'"],
        connectSrc: ["'self'"],
        workerSrc: ["'self'"],
        manifestSrc: ["'self'"],
        baseUri: ["'none'"],
        formAction: ["'none'"],
        frameAncestors: ["'none'"],
        objectSrc: ["'none'"],
      },
    },
  })

const ROUTES = [
  ...[productionRoutes, gearRoutes, lockerRoutes, planRoutes, shotRoutes, dayRoutes],
  ...[readerRoutes, noticedRoutes, cardRoutes, pictureRoutes, reviewRoutes, watchRoutes, rigRoutes, sortedRoutes],
  ...[chartRoutes, listRoutes, copyRoutes, proxyRoutes, storageRoutes, folderRoutes, exportRoutes, shelfRoutes],
  ...[editRoutes, taskRoutes, stateRoutes, searchRoutes, benchRoutes],
]

/** The whole HTTP side: guard, access key, API, and the built pages. */
export function createApp(context: Context, events: EventStream, { webFolder, listening, key }: Outside): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(guard(listening))
  app.use((_req, res, next) => {
    res.locals.nonce = randomBytes(16).toString('base64')
    next()
  })
  app.use(headers())
  if (key !== undefined) app.use(accessKey(key))
  app.use('/api', events.stamp)
  app.get(`/api${EVENTS_PATH}`, events.route)
  app.use(compression())
  app.use('/api', (_req, res, next) => {
    res.set('Cache-Control', 'no-store')
    next()
  })
  app.use('/api', onlyMethods())
  app.use(onlyJson)
  // Not strict: whatever is JSON reaches the schema, which has the better sentence.
  app.use('/api', express.json({ limit: '1mb', strict: false }))
  for (const routes of ROUTES) app.use('/api', routes(context))
  app.use('/api', missing)
  servePages(app, webFolder)
  app.use(missing)
  app.use(answerProblem)
  return app
}

/** A path that exists, asked in a way that it does not know, in whatever format: 405, with the ways that it does. */
function onlyMethods(): Router {
  const router = Router()
  for (const path of new Set(ENDPOINTS.map((one) => one.path))) {
    const allowed = ENDPOINTS.filter((one) => one.path === path).flatMap(({ method }): string[] =>
      method === 'GET' ? ['GET', 'HEAD'] : [method],
    )
    router.all(path, (req, res, next) => {
      if (allowed.includes(req.method)) return next()
      res.set('Allow', allowed.join(', '))
      throw new ProblemError(
        405,
        'wrong-method',
        'This method is not known here',
        `${req.method} is not known here; ${allowed.join(' and ')} is.`,
      )
    })
  }
  return router
}
