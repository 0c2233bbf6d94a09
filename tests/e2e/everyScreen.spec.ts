import { expect, type Page } from '@playwright/test'
import { STATIONS } from '../../core/line/stations'
import { isLong } from '../long'
import { expectAccessible } from './access'
import { complaints, productionId } from './bench'
import { ownHouse, test } from './house'

ownHouse()

const heading = (page: Page) => page.getByRole('heading', { level: 1 })

const widerThanWindow = (page: Page) =>
  page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)

test.describe('every screen', () => {
  for (const [name, size] of [
    ['desk', { width: 1280, height: 800 }],
    ['phone', { width: 390, height: 844 }],
  ] as const) {
    test(`fits a ${name}, is open to everybody, and complains of nothing`, async ({ page, request }) => {
      const tabs = [page, await page.context().newPage()]
      for (const tab of tabs) await tab.setViewportSize(size)
      const said = tabs.map(complaints)
      const [full, empty] = [
        await productionId(request, 'Steam-bending ribs'),
        await productionId(request, 'Sail loft'),
      ]
      const launch = await productionId(request, 'Launch day')
      const paths = [
        '/',
        '/bench',
        '/chart',
        '/lists',
        '/nowhere',
        ...['gear', ...(isLong ? ['cards', 'drives', 'sites', 'clients'] : []), 'rules'].map((tab) => `/locker/${tab}`),
        ...['', '/shots', '/day', '/carry', '/rates', '/framing', '/measured'].map(
          (desk) => `/p/${launch}/shoot${desk}`,
        ),
        ...(isLong ? [full, empty] : [full]).flatMap((id) => STATIONS.map((station) => `/p/${id}/${station}`)),
      ]
      // What these pages are made of was looked at on the desk and stands on a phone on the others.
      const alike = [
        ...['/nowhere', '/locker/drives', '/locker/sites', '/locker/clients', '/locker/rules'],
        ...['/carry', '/rates', '/measured'].map((desk) => `/p/${launch}/shoot${desk}`),
        ...STATIONS.map((station) => `/p/${empty}/${station}`),
      ]
      const shown = isLong || name === 'desk' ? paths : paths.filter((path) => !alike.includes(path))
      const titles = new Set<string>()
      const look = async (tab: Page, path: string) => {
        await tab.goto(path)
        await expect(heading(tab), path).toBeVisible()
        await expect(heading(tab), path).toHaveCount(1)
        // Charts and pictures may come a moment later and must not push the page wider than the window.
        await tab.waitForLoadState('networkidle').catch(() => undefined)
        expect(await widerThanWindow(tab), `${path} is wider than the window`).toBeLessThanOrEqual(0)
        if (name === 'desk' || (isLong && !alike.includes(path)))
          await expectAccessible(tab, path, name === 'phone' || alike.includes(path) ? 'day' : 'both')
        titles.add(await tab.title())
        if (name === 'phone') {
          await tab.setViewportSize({ width: 320, height: 700 })
          await expect.poll(() => widerThanWindow(tab), `${path} is wider than 320 px`).toBeLessThanOrEqual(0)
          await tab.setViewportSize(size)
        }
      }
      // Two tabs side by side: each page has its own processor.
      const waiting = [...shown]
      await Promise.all(
        tabs.map(async (tab) => {
          for (let path = waiting.shift(); path !== undefined; path = waiting.shift()) await look(tab, path)
        }),
      )
      expect(titles.size).toBe(shown.length)
      expect(said.flat()).toEqual([])
    })
  }
})

test('every sheet is open to everybody, shows a way out, and gives the focus back', async ({ page, request }) => {
  const full = await productionId(request, 'Steam-bending ribs')
  const sheets = [
    ['/', 'New production'],
    ['/', 'Keys'],
    [`/p/${full}/shoot`, 'Add a camera'],
    [`/p/${full}/shoot`, 'Which mode fits the day?'],
    [`/p/${full}/shoot`, 'Change Steam-bending ribs'],
    [`/p/${full}/shoot/shots`, 'Add a shot'],
    ['/locker/gear', 'Add a camera'],
    ['/locker/gear', 'Add a mode to Curlew'],
    ['/locker/cards', 'Add a card'],
    ['/locker/clients', 'Change own channel'],
    ['/locker/drives', 'Change Tide 1'],
    ['/locker/sites', 'Change bag'],
    ['/locker/rules', 'Make another of At home only'],
    [`/p/${full}/cards`, 'Add a reader folder'],
    [`/p/${full}/storage`, 'Add a volume'],
  ] as const
  for (const [path, name] of sheets.filter((_, at) => isLong || at % 3 === 0)) {
    await page.goto(path)
    const opener = page.getByRole('button', { name, exact: true }).first()
    await opener.click()
    const sheet = page.getByRole('dialog')
    await expect(sheet).toBeVisible()
    // The parts are the same ones: at night colours are all that differs, and one sheet has them all.
    await expectAccessible(page, name, name === 'Add a volume' ? 'both' : 'day')
    await sheet.getByRole('button', { name: 'Close' }).click()
    await expect(sheet).toHaveCount(0)
    await expect(opener, `${name} gets the focus back`).toBeFocused()
  }
  await page.getByRole('button', { name: 'Find anything' }).click()
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
  await expectAccessible(page, 'the palette')
  await page.keyboard.press('Escape')
  await expect(page.getByRole('button', { name: 'Find anything' })).toBeFocused()
  await page.goto(`/p/${await productionId(request, 'Launch day')}/shoot/shots`)
  await page.getByRole('button', { name: 'Take it along' }).click()
  await expect(page.getByRole('menu')).toBeVisible()
  await expectAccessible(page, 'a menu')
})
