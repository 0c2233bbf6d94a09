import type { Browser, Page } from '@playwright/test'
import { STATIONS } from '../../core/line/stations'
import type { Figure } from './copyBench'
import { fill } from './fill'
import { startStation } from '../clear/station'
import { onFilledPages } from './filledPages'

const TURNS = 5
/** How long after a press, or after the same page that is empty, a page may say what it knows, in milliseconds. */
const SOON_MS = 200
const LOAD = { filesEach: 1, clipsEach: 1, readings: [1] }

/**
 * How long the first answer of each main page takes with 100 000 loads, asked in turns: by a press in the open
 * application, and in a cold browser beside the same page of a production of nothing. The stations are those of a
 * production of 100 loads; the overview begins with productions of ten loads each, as weeks of filming have them, and
 * stands beside that of a second station with one production of nothing.
 */
export async function firstFigures(): Promise<Figure[]> {
  let [heavy, empty] = ['', '']
  const second = await startStation()
  await second.post('/productions', { title: 'Nothing yet' })
  const nothingYet = new URL(second.base).origin
  try {
    return await onFilledPages(
      { productions: 900, loadsEach: 100, ...LOAD },
      async ({ browser, origin }) => {
        const cold = ['', ...STATIONS.map((station) => `p/${heavy}/${station}`)]
        const nothing = [nothingYet, ...STATIONS.map((station) => `${origin}/p/${empty}/${station}`)]
        const took = new Map<string, number[]>()
        const note = (name: string, ms: number) => took.set(name, [...(took.get(name) ?? []), ms])
        const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
        for (let turn = 0; turn < TURNS; turn += 1) {
          for (const [at, path] of cold.entries()) {
            note(path, await firstAnswer(browser, `${origin}/${path}`))
            note(nothing[at] ?? '', await firstAnswer(browser, nothing[at] ?? ''))
          }
          await page.goto(`${origin}/${cold.at(-1)}`)
          await page.locator('main h1').waitFor()
          // The overview last: from there only the newest productions are a press away.
          for (const path of [...cold.slice(1), '']) note(`press ${path}`, await pressed(page, `/${path}`))
          // What this page still asks for is no part of what the next one takes.
          await page.goto('about:blank')
        }
        const median = (name: string) => took.get(name)?.toSorted((a, b) => a - b)[Math.floor(TURNS / 2)] ?? 0
        const nameOf = (path: string) => path.split('/').at(-1) || 'the overview'
        const figure = (name: string, ours: number): Figure => ({
          name: `first answer of ${name}`,
          ours,
          theirs: SOON_MS,
          unit: 'ms',
          ratio: ours / SOON_MS,
          goal: 'under 1',
        })
        return [
          ...cold.map((path) => figure(`${nameOf(path)} by a press, 100 000 loads`, median(`press ${path}`))),
          ...cold.map((path, at) =>
            figure(
              `${nameOf(path)} in a cold browser, 100 000 loads, later than the empty page`,
              Math.max(0, median(path) - median(nothing[at] ?? '')),
            ),
          ),
        ]
      },
      async (db) => {
        await fill(db, { productions: 1000, loadsEach: 10, ...LOAD })
        const of = (title: string) => db.selectFrom('production').select('id').where('title', '=', title)
        heavy = (await of('Mast day 900').executeTakeFirstOrThrow()).id
        await fill(db, { productions: 1, loadsEach: 0, ...LOAD })
        empty = (await of('Mast day 1901').executeTakeFirstOrThrow()).id
      },
    )
  } finally {
    await second.stop()
  }
}

/** From the address to the first heading, in milliseconds, with nothing in any cache. */
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

/** From a press on the link to a page until its heading stands there, in milliseconds. */
async function pressed(page: Page, path: string): Promise<number> {
  await page.waitForLoadState('networkidle')
  return page.evaluate(
    (wanted) =>
      new Promise<number>((done, fail) => {
        const link = [...document.querySelectorAll('a')].find((one) => one.getAttribute('href') === wanted)
        if (!link) return fail(new Error(`no way to ${wanted}`))
        const before = document.querySelector('main h1')
        const began = performance.now()
        new MutationObserver((_, observer) => {
          const heading = document.querySelector<HTMLElement>('main h1')
          if (!heading || heading === before || !heading.checkVisibility()) return
          observer.disconnect()
          done(performance.now() - began)
        }).observe(document, { childList: true, subtree: true, attributes: true })
        link.click()
      }),
    path,
  )
}
