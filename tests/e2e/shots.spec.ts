import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import { expectAccessible } from './access'
import { complaints, productionId, saved } from './bench'
import { ownHouse, test } from './house'
import { heading } from './keys'

ownHouse()

test('shots are moved by hand, ticked on a phone without a network, and come back', async ({
  page,
  request,
  browser,
}) => {
  const id = await productionId(request, 'Launch day')
  await page.goto(`/p/${id}/shoot/shots`)
  const rows = page.getByRole('list', { name: 'Shots' }).getByRole('listitem')
  await expect(rows).toHaveCount(9)
  // By the handle, from the first place to the third.
  const handle = page.getByRole('button', { name: 'Move Tide gauge, water coming in' })
  const [from, to] = [await handle.boundingBox(), await rows.nth(2).boundingBox()]
  await page.mouse.move((from?.x ?? 0) + 8, (from?.y ?? 0) + 8)
  await page.mouse.down()
  await page.mouse.move((from?.x ?? 0) + 8, (to?.y ?? 0) + (to?.height ?? 0) / 2, { steps: 12 })
  await page.mouse.up()
  await expect(rows.nth(2)).toContainText('Tide gauge')
  await page.reload()
  await expect(rows.nth(2)).toContainText('Tide gauge')

  // The passes of one performance.
  await page.getByRole('button', { name: 'Add a shot' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Shanty')
  await page.getByLabel('Times it is filmed').fill('3')
  await page.getByRole('button', { name: 'Add 3 shots' }).click()
  await expect(rows).toHaveCount(12)
  await expect(rows.last()).toContainText('Shanty, pass 3 of 3')

  // A table out and in again.
  const along = page.getByRole('button', { name: 'Take it along' })
  await along.click()
  const table = await saved(page, page.getByRole('menuitem', { name: /^As a table/ }), 'shots.csv')
  expect(readFileSync(table, 'utf8').split('\r\n')[0]).toBe('Shot,Camera,For,Notes,Filmed')
  const give = (name: string, buffer: Buffer) =>
    page.getByLabel('Shots as CSV').setInputFiles({ name, mimeType: 'text/csv', buffer })
  const more = 'Shot,Camera,For\r\n"Gulls, low",Plover,Tall short\r\nMoon,Nobody,\r\n'
  await give('more.csv', Buffer.from(more))
  // Nothing is on the list before it was seen.
  const preview = page.getByRole('dialog', { name: '2 shots to add' })
  await expect(preview.getByText('Line 3: no camera is called “Nobody”.')).toBeVisible()
  await expect(preview.getByRole('row').nth(1)).toContainText('Gulls, low')
  await expectAccessible(page, 'the preview of a table', 'day')
  await preview.getByRole('button', { name: 'Add nothing' }).click()
  await expect(rows).toHaveCount(12)
  await give('more.csv', Buffer.from(more))
  // A key before the sheet is open goes elsewhere.
  await expect(preview.locator(':focus')).toBeVisible()
  await page.keyboard.press('Enter')
  await expect(page.getByText('2 shots added at the end.')).toBeVisible()
  await expect(rows).toHaveCount(14)
  // The same again, in the encoding of an old spreadsheet, changes nothing; a page of the web is none.
  await give('more again.csv', Buffer.from(`\uFEFF${more}`, 'utf16le'))
  await expect(page.getByText('2 shots of the file are on the list already.')).toBeVisible()
  await give('sign in.csv', Buffer.from('<!DOCTYPE html><html><body>Sign in first</body></html>'))
  await expect(page.getByText('This is a web page, not a table.')).toBeVisible()
  await expect(rows).toHaveCount(14)

  // One file for a phone of 390 pixels, opened from the disk and without a network.
  await along.click()
  const file = await saved(page, page.getByRole('menuitem', { name: /^On a phone/ }), 'shots.html')
  const outside = await browser.newContext({ offline: true, viewport: { width: 390, height: 844 } })
  const phone = await outside.newPage()
  const said = complaints(phone)
  await phone.goto(`file://${file}`)
  await phone.getByLabel(/Hull leaves the shed/).check()
  await expect(phone.getByRole('heading')).toContainText('1 of 14 filmed')
  // At once, before the browser has put away what the page gave to its store.
  await phone.reload()
  await expect(phone.getByLabel(/Hull leaves the shed/)).toBeChecked()
  // The file opened once more has it from the store, and either page has what was ticked on the other.
  const again = await outside.newPage()
  await expect(async () => {
    await again.goto(`file://${file}`)
    await expect(again.getByLabel(/Hull leaves the shed/)).toBeChecked({ timeout: 2000 })
  }).toPass()
  await again.getByLabel(/Gulls, low/).check()
  await expect(phone.getByRole('heading')).toContainText('2 of 14 filmed')
  await phone.getByLabel(/Gulls, low/).uncheck()
  await expect(again.getByRole('heading')).toContainText('1 of 14 filmed')
  await again.close()
  // A browser whose store takes nothing says so, and keeps them as long as the page is open.
  const bare = await outside.newPage()
  await bare.addInitScript(() => {
    Storage.prototype.setItem = () => {
      throw new Error('The store takes nothing.')
    }
  })
  await bare.goto(`file://${file}`)
  await bare.getByLabel(/Gulls, low/).check()
  await bare.reload()
  await expect(bare.getByText('This browser keeps the ticks only while the page is open')).toBeVisible()
  await expect(bare.getByLabel(/Gulls, low/)).toBeChecked()
  await bare.close()
  await phone.reload()
  await expect(phone.getByRole('heading')).toContainText('1 of 14 filmed')
  // Ticked at the desk meanwhile: the phone knows nothing of it, and does not take it back.
  await page.getByRole('checkbox', { name: /Planks taking up/ }).click()
  await expect(heading(page)).toContainText('1 of 14 filmed')
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)
  const ticks = await saved(phone, phone.getByRole('button', { name: 'Give the ticks back' }), 'ticks.json')
  expect(said).toEqual([])
  await outside.close()

  await page.getByLabel('Ticks of a phone').setInputFiles(ticks)
  await expect(page.getByText('1 shot changed.')).toBeVisible()
  await expect(page.getByRole('checkbox', { name: /Hull leaves the shed/ })).toBeChecked()
  await expect(page.getByRole('checkbox', { name: /Planks taking up/ })).toBeChecked()
  // The list of another production changes nothing.
  await page.goto(`/p/${await productionId(request, 'Sail loft')}/shoot/shots`)
  await page.getByRole('button', { name: 'Add a shot' }).click()
  await page.getByLabel('Name', { exact: true }).fill('Loft door')
  await page.getByRole('button', { name: 'Add the shot' }).click()
  await expect(page.getByRole('list', { name: 'Shots' }).getByRole('listitem')).toHaveCount(1)
  await page.getByLabel('Ticks of a phone').setInputFiles(ticks)
  await expect(page.getByRole('alert')).toContainText('These are ticks of another production')

  // Ticked in the application itself, on a phone-sized screen.
  await page.setViewportSize({ width: 390, height: 844 })
  await page.goto(`/p/${id}/shoot/shots`)
  await page.getByRole('checkbox', { name: /Rollers under the keel/ }).click()
  await expect(heading(page)).toContainText('3 of 14 filmed')
  // The line of the stations is wider than a phone, and shows where one stands.
  await page.goto(`/p/${id}/shelf`)
  const stations = page.getByRole('navigation', { name: 'Stations' })
  await expect(stations.getByRole('link', { name: /Shelf/ })).toBeInViewport({ ratio: 1 })
})
