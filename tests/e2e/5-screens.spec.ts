import { expect, test, type Page } from '@playwright/test'
import { STATION_NAMES, STATIONS } from '../../core/line/stations'
import { complaints, productionId } from './bench'

const heading = (page: Page) => page.getByRole('heading', { level: 1 })

/** Everything that can be pressed or read out must have a name. */
async function namelessThings(page: Page): Promise<string[]> {
  return page.evaluate(() => {
    const named = (element: Element) => {
      const labels = 'labels' in element ? ((element as HTMLInputElement).labels?.length ?? 0) : 0
      const text = (element.textContent ?? '').trim()
      return Boolean(text || element.getAttribute('aria-label') || element.getAttribute('title') || labels > 0)
    }
    const pressed = [...document.querySelectorAll('button, a, input, select, [role="img"], [role="application"]')]
    const pictures = [...document.querySelectorAll('img')].filter((image) => !image.hasAttribute('alt'))
    return [...pressed.filter((element) => !named(element)), ...pictures].map((element) =>
      element.outerHTML.slice(0, 120),
    )
  })
}

test.describe('every screen', () => {
  for (const [name, size] of [
    ['desk', { width: 1280, height: 800 }],
    ['small phone', { width: 360, height: 740 }],
  ] as const) {
    test(`fits a ${name}, names everything, and complains of nothing`, async ({ page, request }) => {
      await page.setViewportSize(size)
      const said = complaints(page)
      const [full, empty] = [
        await productionId(request, 'Steam-bending ribs'),
        await productionId(request, 'Sail loft'),
      ]
      const paths = [
        '/',
        '/bench',
        '/nowhere',
        ...[full, empty].flatMap((id) => STATIONS.map((station) => `/p/${id}/${station}`)),
      ]
      for (const path of paths) {
        await page.goto(path)
        await expect(heading(page), path).toBeVisible()
        await expect(heading(page), path).toHaveCount(1)
        // Charts and pictures may come a moment later and must not push the page wider than the window.
        await page.waitForLoadState('networkidle').catch(() => undefined)
        const overflow = await page.evaluate(
          () => document.documentElement.scrollWidth - document.documentElement.clientWidth,
        )
        expect(overflow, `${path} is wider than the window`).toBeLessThanOrEqual(0)
        expect(await namelessThings(page), path).toEqual([])
      }
      expect(said).toEqual([])
    })
  }
})

test('the theme is changed by one press and remembered', async ({ page }) => {
  await page.goto('/')
  const background = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor)
  const day = await background()
  await page.getByRole('button', { name: 'Change to night' }).click()
  const night = await background()
  expect(night).not.toBe(day)
  await page.reload()
  expect(await background()).toBe(night)
  await page.getByRole('button', { name: 'Change to day' }).click()
  expect(await background()).toBe(day)
})

test('the palette finds productions, clips, volumes and stations by a few letters', async ({ page }) => {
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  const find = async (letters: string, shown: string) => {
    await page.keyboard.press('/')
    await expect(page.getByRole('combobox')).toBeFocused()
    await page.keyboard.type(letters)
    await expect(page.getByRole('option', { selected: true })).toContainText(shown)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }
  await find('sail', 'Sail loft')
  await expect(page).toHaveURL(/storage/)
  await find('neap', 'Neap')
  await expect(page).toHaveURL(/storage/)
  await find('shoo', STATION_NAMES.shoot)
  await expect(page).toHaveURL(/shoot/)
  await find('all prod', 'All productions')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox').fill('no such thing')
  await expect(page.getByText('Nothing by that name.')).toBeVisible()
})

test('the clip table sorts by any column, and says by which', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Steam-bending ribs')}/cards`)
  const table = page.getByRole('region', { name: 'Clips' }).last()
  const names = () =>
    table.locator('[data-clip]').evaluateAll((rows) => rows.map((row) => row.getAttribute('data-clip')))
  await table.getByRole('button', { name: 'Recorded' }).click()
  const up = await names()
  await expect(table.getByRole('columnheader', { name: 'Recorded' })).toHaveAttribute('aria-sort', 'ascending')
  await table.getByRole('button', { name: 'Recorded' }).click()
  await expect(table.getByRole('columnheader', { name: 'Recorded' })).toHaveAttribute('aria-sort', 'descending')
  expect(await names()).toEqual([...up].reverse())
})

test('an empty station says what it is for and offers the first step', async ({ page, request }) => {
  const id = await productionId(request, 'Sail loft')
  for (const [station, sentence] of [
    ['shoot', 'Plan what will be recorded.'],
    ['copies', 'Nothing to copy yet.'],
    ['proxies', 'No clips to make proxies of.'],
    ['exports', 'Nothing to frame yet.'],
    ['shelf', 'Nothing to shelve yet.'],
  ] as const) {
    await page.goto(`/p/${id}/${station}`)
    await expect(heading(page)).toHaveText(sentence)
  }
  await page.getByRole('link', { name: 'Make a deliverable first' }).click()
  await expect(page).toHaveURL(/exports/)
})

test('a wrong folder is refused under its field, and nothing typed is lost', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Sail loft')}/storage`)
  await page.getByRole('button', { name: 'Add a volume' }).click()
  const sheet = page.getByRole('dialog', { name: 'Add a volume' })
  await sheet.getByRole('button', { name: 'Add it' }).click()
  await expect(sheet.getByText('Name the volume.')).toBeVisible()
  await sheet.getByLabel('Folder').fill('/nowhere/at/all')
  await sheet.getByLabel('Name', { exact: true }).fill('Sandbank')
  await sheet.getByLabel('Kept at').fill('house')
  await sheet.getByRole('button', { name: 'Add it' }).click()
  await expect(sheet.getByRole('alert')).toContainText('There is no folder at /nowhere/at/all')
  await expect(sheet.getByLabel('Name', { exact: true })).toHaveValue('Sandbank')
  await sheet.getByRole('button', { name: 'Leave' }).click()
  await expect(sheet).toHaveCount(0)
})
