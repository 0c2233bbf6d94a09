import { readFileSync } from 'node:fs'
import { join } from 'node:path'
import express, { type Express } from 'express'
import expressStaticGzip from 'express-static-gzip'
import { isStation } from '../../core/line/stations'
import { firstQuestions } from '../../contract/firstQuestions'
import { missing } from './problem'

/** Nothing here needs any of them. */
const NO_FEATURES = ['camera', 'microphone', 'geolocation', 'payment', 'usb', 'display-capture', 'browsing-topics']
  .map((name) => `${name}=()`)
  .join(', ')

interface Chunk {
  readonly file: string
  readonly name?: string
  readonly imports?: readonly string[]
}

/** The built pages: what a browser asks for by its name, and one page for every other address. */
export function servePages(app: Express, webFolder: string): void {
  const kept = { immutable: true, maxAge: '1y' } as const
  app.use('/assets', expressStaticGzip(join(webFolder, 'assets'), { index: false, serveStatic: kept }), missing)
  app.use(express.static(webFolder, { index: false }))
  const page = readFileSync(join(webFolder, 'index.html'), 'utf8')
  const chunks = JSON.parse(readFileSync(join(webFolder, '.vite/manifest.json'), 'utf8')) as Record<string, Chunk>
  app.get('/{*path}', (req, res) => {
    const early = [...codeOf(req.path, chunks), ...firstQuestions(req.path).map(asQuestion)]
    res
      .type('html')
      .set('Cache-Control', 'no-store')
      .set('Permissions-Policy', NO_FEATURES)
      .send(
        page
          .replaceAll('__NONCE__', res.locals.nonce as string)
          // Behind the scripts, which are wanted first; answers come while those are read.
          .replace('</head>', `${early.join('')}</head>`),
      )
  })
}

const asQuestion = (address: string) =>
  `<link rel="preload" as="fetch" crossorigin href="${address.replaceAll('&', '&amp;')}">`

/** The code of a station's pages, which the page itself would ask for only when its own has run. */
function codeOf(path: string, chunks: Readonly<Record<string, Chunk>>): readonly string[] {
  const [place, , station] = path.split('/').filter((part) => part !== '')
  if (place !== 'p' || !isStation(station)) return []
  const own = Object.values(chunks).find((chunk) => chunk.name === station)
  const others = own?.imports?.flatMap((name) => chunks[name] ?? []).filter(({ name }) => isStation(name)) ?? []
  return [...(own ? [own] : []), ...others].map(({ file }) => `<link rel="modulepreload" crossorigin href="/${file}">`)
}
