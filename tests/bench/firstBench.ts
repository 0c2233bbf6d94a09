import type { Browser } from '@playwright/test'
import { STATIONS } from '../../core/line/stations'
import type { Figure } from './copyBench'
import { fill } from './fill'
import { onFilledPages } from './filledPages'

const TURNS = 5
/** How long after an empty page a page may say what it knows, in milliseconds. */
const SOON_MS = 200

const LOAD = { filesEach: 1, clipsEach: 1, readings: [1] }

/**
 * How long the first answer of each main page takes in a cold browser with 100 000 loads, beside a page of the same
 * application that knows nothing, asked in turns. The stations are those of a production of 100 loads; the overview
 * begins with 25 of ten loads each, as a week of filming has them.
 */
export function firstFigures(): Promise<Figure[]> {
  let productionId = ''
  return onFilledPages(
    { productions: 900, loadsEach: 100, ...LOAD },
    async ({ browser, origin }) => {
      const pages = ['', ...STATIONS]
      const took = new Map<string, number[]>(['nowhere', ...pages].map((name) => [name, []]))
      const pathOf = (name: string) => (STATIONS.some((one) => one === name) ? `p/${productionId}/${name}` : name)
      for (let turn = 0; turn < TURNS; turn += 1)
        for (const [name, list] of took) list.push(await firstAnswer(browser, `${origin}/${pathOf(name)}`))
      const median = (name: string) => took.get(name)?.toSorted((a, b) => a - b)[Math.floor(TURNS / 2)] ?? 0
      return pages.map((name): Figure => {
        const ours = Math.max(0, median(name) - median('nowhere'))
        return {
          name: `first answer of ${name || 'the overview'} with 100 000 loads, later than an empty page`,
          ours,
          theirs: SOON_MS,
          unit: 'ms',
          ratio: ours / SOON_MS,
          goal: 'under 1',
        }
      })
    },
    async (db) => {
      await fill(db, { productions: 1000, loadsEach: 10, ...LOAD })
      const { id } = await db
        .selectFrom('production')
        .select('id')
        .where('title', '=', 'Mast day 900')
        .executeTakeFirstOrThrow()
      productionId = id
    },
  )
}

/** From the press to the first heading, in milliseconds, with nothing in any cache. */
async function firstAnswer(browser: Browser, address: string): Promise<number> {
  const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
  await page.addInitScript(() => {
    new MutationObserver((_, observer) => {
      if (!document.querySelector('main h1')) return
      observer.disconnect()
      Object.assign(window, { yendraFirst: performance.now() })
    }).observe(document, { childList: true, subtree: true })
  })
  await page.goto(address)
  await page.waitForFunction(() => 'yendraFirst' in window)
  const took = await page.evaluate(() => (window as unknown as { yendraFirst: number }).yendraFirst)
  await page.close()
  return took
}
