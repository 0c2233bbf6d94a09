import { expect, type Page, type Request } from '@playwright/test'
import { STATION_NAMES, STATIONS } from '../../core/line/stations'
import { post, productionId, startTask, taskEnd } from './bench'
import { ownHouse, test } from './house'
import { heading } from './keys'

ownHouse()

/** Answers of an address wait until they are let go. */
async function hold(page: Page, address: RegExp): Promise<() => void> {
  let letGo = () => {}
  const free = new Promise<void>((done) => (letGo = done))
  await page.route(address, async (route) => {
    await free
    await route.continue()
  })
  return letGo
}

const CHECKED = /\/productions\/[^/]+\/copies(\?.*)?$/

test('the line of the stations is there before anything is known of the production, and before the code of its page', async ({
  page,
  request,
}) => {
  const id = await productionId(request, 'Steam-bending ribs')
  const letGo = await hold(page, /\/api\/productions\/[^/]+$/)
  const letCodeGo = await hold(page, /\/assets\/copies-/)
  await page.goto(`/p/${id}/copies`)
  const line = page.getByRole('navigation', { name: 'Stations' })
  for (const station of STATIONS) await expect(line.getByText(STATION_NAMES[station])).toBeVisible()
  // Nothing is said of a station of which nothing is known.
  await expect(line.getByText(/nothing yet|in order|under way/)).toHaveCount(0)
  letGo()
  await expect(line.getByText('in order').first()).toBeAttached()
  await expect(page.locator('main').getByText('One moment …')).toBeVisible()
  letCodeGo()
  await expect(heading(page)).toContainText('Clear to format')
})

test('a yes waits for its check: at first, from the history, in a tab that wakes, and where nobody answers', async ({
  page,
  request,
}) => {
  const id = await productionId(request, 'Steam-bending ribs')
  // The house was copied, and with it the card: it is another one until it was read.
  const { rows } = (await (await request.get(`/api/productions/${id}/copies`)).json()) as { rows: { loadId: string }[] }
  await taskEnd(request, await startTask(request, `/loads/${rows[0]?.loadId}/card/read`, {}))
  const checking = 'Checking the card, Slipway and Tide 1 now …'
  await page.addInitScript(() => {
    Object.assign(window, { yesses: [] })
    new MutationObserver(() => {
      const said = document.querySelector('main h1')?.textContent ?? ''
      if (said.includes('Yes:')) (window as unknown as { yesses: string[] }).yesses.push(said)
    }).observe(document, { childList: true, subtree: true, characterData: true })
  })
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  let letGo = await hold(page, CHECKED)
  const release = async () => {
    letGo()
    await expect(heading(page)).toContainText('Yes: this card may be formatted')
    await page.unrouteAll()
    letGo = await hold(page, CHECKED)
    await page.evaluate(() => Object.assign(window, { yesses: [] }))
  }
  const expectChecking = async () => {
    // By itself a yes goes after 45 seconds, asked or not.
    await expect(heading(page)).toHaveText(checking, { timeout: 25_000 })
    await expect(page.getByRole('tab', { name: 'checking' })).toHaveCount(0)
    // Since the last leave to show one, no yes was painted, not even for one picture.
    expect(await page.evaluate(() => (window as unknown as { yesses: string[] }).yesses)).toEqual([])
    // What is known stands there all the same.
    await expect(page.locator('[data-volume="Tide 1"]')).toHaveAttribute('data-mark', '3')
    await expect(page.getByText('Yes', { exact: false })).toHaveCount(0)
  }
  await page.goto(`/p/${id}/copies`)
  await expectChecking()
  await release()
  // Back from another station the yes of before is not shown.
  await page.keyboard.press('2')
  await expect(page).toHaveURL(/cards$/)
  await page.goBack()
  await expectChecking()
  await release()
  // A tab that was hidden asks anew.
  await page.evaluate(() => {
    const show = (state: string) => {
      Object.defineProperty(document, 'visibilityState', { get: () => state, configurable: true })
      document.dispatchEvent(new Event('visibilitychange'))
    }
    show('hidden')
    show('visible')
  })
  await expectChecking()
  await release()
  // A yes that cannot be asked again goes.
  await page.unrouteAll()
  await page.route(CHECKED, (route) => route.abort())
  await expect(heading(page)).toHaveText(checking)
})

test('a main page asks for at most 25 things, and what it asks first comes with it, once', async ({
  browser,
  request,
  baseURL,
}) => {
  const id = await productionId(request, 'Steam-bending ribs')
  for (const path of ['/', ...STATIONS.map((station) => `/p/${id}/${station}`)]) {
    const context = await browser.newContext({ baseURL: baseURL ?? '' })
    const page = await context.newPage()
    const asked: Request[] = []
    page.on('request', (one) => asked.push(one))
    await page.addInitScript(() => {
      const [fetched, plain] = [new Array<string>(), window.fetch]
      Object.assign(window, { fetched })
      window.fetch = (...what) => {
        fetched.push(new Request(...what).url.slice(location.origin.length))
        return plain(...what)
      }
    })
    await page.goto(path)
    await expect(heading(page)).toBeVisible()
    await page.waitForLoadState('networkidle')
    expect(asked.length, `${path}: ${asked.map((one) => one.url()).join(' ')}`).toBeLessThanOrEqual(25)
    const { early, fetched } = await page.evaluate(() => ({
      early: [...document.querySelectorAll('link[rel="preload"]')].map((link) => link.getAttribute('href')),
      fetched: (window as unknown as { fetched: string[] }).fetched,
    }))
    expect(early.length, path).toBeGreaterThan(0)
    expect(fetched, path).toEqual(expect.arrayContaining(early))
    for (const address of early)
      expect(asked.filter((one) => one.url().endsWith(address ?? '')).length, `${path}: ${address}`).toBe(1)
    await context.close()
  }
})

test('head, line and desks leave the room to the picture, and all that belongs to it is in the window', async ({
  page,
  request,
}) => {
  const id = await productionId(request, 'Steam-bending ribs')
  // The sorted view has its board once something is kept.
  const { rows } = (await (await request.get(`/api/productions/${id}/review`)).json()) as { rows: { id: string }[] }
  const kept = { verdict: 'keep', ranges: [], note: '', shotId: null }
  expect((await request.put(`/api/clips/${rows[0]?.id}/review`, { data: kept })).ok()).toBe(true)
  const bottom = async (name: string) => {
    const box = await page.locator(name).boundingBox()
    return (box?.y ?? NaN) + (box?.height ?? NaN)
  }
  for (const [path, last] of [
    ['cards/review', 'button[aria-label="One frame on"]'],
    ['shoot/framing', 'figure figcaption'],
    ['exports', '[data-testid="crop-window"]'],
    ['exports', 'dl[aria-label="Figures of this framing"]'],
    ['cards/sorted', '[aria-labelledby="board"] h2'],
  ] as const) {
    await page.goto(`/p/${id}/${path}`)
    await expect(page.locator(last)).toBeVisible()
    expect(await bottom('[data-testid="desks"]'), path).toBeLessThanOrEqual(110)
    await expect.poll(() => bottom(last), `${path}: ${last}`).toBeLessThanOrEqual(800)
  }
  await page.setViewportSize({ width: 390, height: 844 })
  for (const path of ['cards/review', 'exports', 'copies']) {
    await page.goto(`/p/${id}/${path}`)
    await expect(heading(page)).toBeVisible()
    expect(await bottom('[data-testid="desks"]'), path).toBeLessThanOrEqual(120)
  }
})

test('the overview begins with eight productions, and the next come by themselves', async ({ page, request }) => {
  for (let at = 1; at <= 40; at += 1) await post(request, '/productions', { title: `Week ${at}` })
  const asked: string[] = []
  await page.route(/\/api\/productions(\?|$)/, async (route) => {
    asked.push(new URL(route.request().url()).search)
    const response = await route.fetch()
    if (asked.length === 1) expect(((await response.json()) as { rows: unknown[] }).rows).toHaveLength(8)
    await route.fulfill({ response })
  })
  await page.goto('/')
  await expect(page.locator('[data-production]')).toHaveCount(32)
  await expect(heading(page)).toContainText(/newest 32|A card waits/)
  await expect(page.getByRole('button', { name: 'Show older productions' })).toBeVisible()
  expect(asked[0]).toBe('')
})
