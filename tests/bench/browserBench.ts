import type { Page as BrowserPage } from '@playwright/test'
import { STATIONS } from '../../core/line/stations'
import type { Db } from '../../server/db/connection'
import { addReader } from '../../server/db/queries/readers'
import type { Figure } from './copyBench'
import { onFilledPages } from './filledPages'

const CLIPS = 100_000
const ROW_PX = 74
const DEVICES = 24

/**
 * What the browser does with a card of 100 000 clips: the longest task of any page, and how evenly its table scrolls.
 */
export const browserFigures = (): Promise<Figure[]> =>
  onFilledPages(
    { productions: 1, loadsEach: 1, filesEach: CLIPS, clipsEach: CLIPS, readings: [1, 2] },
    async ({ browser, origin, productionId }) => {
      const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
      await page.addInitScript(watchTasks)
      const tasks: Figure[] = []
      for (const name of ['', ...STATIONS]) {
        await page.goto(`${origin}/${name && `p/${productionId}/${name}`}`)
        await page.waitForLoadState('networkidle')
        tasks.push(longest(name || 'overview', await longestTask(page)))
      }
      await page.goto(`${origin}/bench`)
      await page.getByRole('heading', { name: /Practise here/ }).waitFor()
      await page.waitForLoadState('networkidle')
      tasks.push(longest('practice bench', await longestTask(page)))
      await page.goto(origin)
      await page.waitForLoadState('networkidle')
      await page.keyboard.press('Control+k')
      await page.keyboard.type('curl0042')
      await page.getByRole('option').first().waitFor()
      tasks.push(longest('finding a clip', await longestTask(page)))
      await page.goto(`${origin}/p/${productionId}/cards`)
      await page.getByRole('grid').waitFor()
      const ours = await scrolled(page, '[role=grid]')
      await page.goto(origin)
      await page.evaluate(bareList, { rows: CLIPS, rowPx: ROW_PX })
      const theirs = await scrolled(page, '#bare')
      return [
        ...tasks,
        {
          name: 'scrolling 100 000 clips, frame time against a bare list',
          ours,
          theirs,
          unit: 'ms',
          ratio: ours / theirs,
          goal: 'at most 1.2',
        },
      ]
    },
    practise,
  )

/** A practice bench with more devices than the demo has: none of them has to be there to be drawn. */
async function practise(db: Db): Promise<void> {
  const device = { capacityBytes: 128e9, readBytesPerSecond: 90e6, writeBytesPerSecond: 90e6, plugged: false }
  for (let n = 1; n <= DEVICES; n += 1) {
    const { id } = await addReader(db, { name: `Reader ${n}`, rootPath: null, simulated: true, host: 'nowhere' })
    await db
      .insertInto('benchDevice')
      .values({ id, role: n % 3 === 0 ? 'reader' : 'volume', ...device })
      .execute()
    await db
      .insertInto('benchCard')
      .values({ name: `Curlew ${n}`, folder: `/nowhere/${n}`, story: 'Ribs and keel.' })
      .execute()
  }
}

const longest = (name: string, ours: number): Figure => ({
  name: `longest task with 100 000 clips: ${name}`,
  ours,
  theirs: 200,
  unit: 'ms',
  ratio: ours / 200,
  goal: 'under 1',
})

function watchTasks(): void {
  const seen: number[] = []
  Object.assign(window, { yendraTasks: seen })
  new PerformanceObserver((list) => list.getEntries().forEach((entry) => seen.push(entry.duration))).observe({
    type: 'longtask',
    buffered: true,
  })
}

const longestTask = (page: BrowserPage) =>
  page.evaluate(() => Math.max(0, ...(window as unknown as { yendraTasks: number[] }).yendraTasks))

/** The 95th percentile of the time between frames while a box scrolls, in milliseconds. */
const scrolled = (page: BrowserPage, selector: string) =>
  page.evaluate(async (where) => {
    const box = document.querySelector(where)
    if (!box) throw new Error(`no ${where}`)
    const times: number[] = []
    let last = performance.now()
    for (let turn = 0; turn < 240; turn += 1) {
      box.scrollTop += 90
      await new Promise(requestAnimationFrame)
      const now = performance.now()
      times.push(now - last)
      last = now
    }
    return times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0
  }, selector)

/** As many rows as the table has, of plain text, drawn as far as they are in sight. */
function bareList({ rows, rowPx }: { rows: number; rowPx: number }): void {
  const box = document.createElement('div')
  box.id = 'bare'
  box.style.cssText = 'height:544px;overflow:auto;position:relative'
  const all = document.createElement('div')
  all.style.cssText = `height:${rows * rowPx}px;position:relative`
  box.append(all)
  document.body.replaceChildren(box)
  const draw = () => {
    const first = Math.floor(box.scrollTop / rowPx)
    all.replaceChildren(
      ...Array.from({ length: Math.ceil(544 / rowPx) + 1 }, (_, at) => {
        const row = document.createElement('div')
        row.style.cssText = `position:absolute;top:${(first + at) * rowPx}px;height:${rowPx}px`
        row.textContent = `CURL${first + at}.MP4 3840×2160 25 4 s H.264 55 MB`
        return row
      }),
    )
  }
  box.addEventListener('scroll', draw)
  draw()
}
