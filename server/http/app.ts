import { randomBytes } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import express, { type Express, type Response } from 'express'
import helmet from 'helmet'
import { benchRoutes } from './beside/bench'
import { cardRoutes } from './cards/routes'
import type { Context } from './context'
import { copyRoutes } from './copies/routes'
import type { EventStream } from './events'
import { exportRoutes } from './exports/routes'
import { guard } from './guard'
import { answerProblem, missing } from './problem'
import { productionRoutes } from './beside/productions'
import { proxyRoutes } from './proxies/routes'
import { shelfRoutes } from './shelf/routes'
import { shootRoutes } from './shoot/routes'
import { storageRoutes } from './storage/routes'
import { taskRoutes } from './beside/tasks'

/** The whole HTTP side: guard, API, and the built pages. `webFolder` is where the build lies. */
export function createApp(context: Context, events: EventStream, webFolder: string): Express {
  const app = express()
  app.disable('x-powered-by')
  app.use(guard)
  app.use((_req, res, next) => {
    res.locals.nonce = randomBytes(16).toString('base64')
    next()
  })
  app.use(
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
    }),
  )
  app.get('/api/events', events.route)
  app.use('/api', express.json({ limit: '1mb' }))
  for (const routes of [
    productionRoutes,
    shootRoutes,
    cardRoutes,
    copyRoutes,
    proxyRoutes,
    storageRoutes,
    exportRoutes,
    shelfRoutes,
    taskRoutes,
    benchRoutes,
  ]) {
    app.use('/api', routes(context))
  }
  app.use('/api', missing)
  app.use('/assets', express.static(join(webFolder, 'assets'), { immutable: true, maxAge: '1y' }), missing)
  app.use(express.static(webFolder, { index: false }))
  const page = readFileSync(join(webFolder, 'index.html'), 'utf8')
  app.get('/{*path}', (_req, res) => {
    res
      .type('html')
      .set('Cache-Control', 'no-store')
      .send(page.replaceAll('__NONCE__', res.locals.nonce as string))
  })
  app.use(answerProblem)
  return app
}
