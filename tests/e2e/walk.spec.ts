import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect } from '@playwright/test'
import { complaints } from './bench'
import { heading } from './keys'
import { ownHouse, STATE, test } from './house'

ownHouse()

test('somebody new presses what is pointed at, from the card to the answer, and is not asked again', async ({
  page,
}) => {
  const said = complaints(page)
  const walk = page.getByRole('region', { name: 'First walk' })
  const pointed = page.locator('[data-pointed]')
  // Each press is made where the walk points, and nowhere else.
  const press = async (step: string, control: string) => {
    await expect(walk).toContainText(step)
    await expect(pointed).toContainText(control)
    await pointed.click()
  }
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  await expect(walk).toHaveCount(0)
  await page.getByRole('button', { name: 'Start here' }).click()
  // The card lies in the reader already: the first step is done.
  await press('2 of 5', 'Take in the card in the reader.')
  await press('2 of 5', 'Scan the card')
  await press('3 of 5', 'Copies')
  await press('3 of 5', 'Copy to Slipway and Tide 1, and prove it')
  await press('4 of 5', 'Play from it')
  await expect(page.getByText('Written down: played from')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(walk).toContainText('5 of 5')
  await expect(pointed).toContainText('Clear to format “Curlew A”? Yes: this card may be formatted, in the camera.')
  await walk.getByRole('button', { name: 'End of the walk' }).click()
  await expect(pointed).toHaveCount(0)

  // It begins again where the keys are listed, with a card that is put in now, and is left at once.
  await page.keyboard.press('?')
  await page.getByRole('button', { name: /^Start here/ }).click()
  await press('1 of 5', 'Bench')
  await expect(pointed).toHaveText('Put in')
  await walk.getByRole('button', { name: 'Leave the walk' }).click()
  await page.reload()
  await expect(heading(page)).toBeVisible()
  await expect(walk).toHaveCount(0)
  expect(said).toEqual([])
})

test('where nothing is known, a card and two drives are given on one page, and what was refused is asked again', async ({
  page,
}) => {
  const folder = (name: string) => join(STATE, 'first steps', name)
  for (const name of ['CARD', 'Drive 1', 'Drive 2']) mkdirSync(folder(name), { recursive: true })
  writeFileSync(join(folder('CARD'), 'CURL0001.MP4'), 'no film')
  // A house that knows nothing; what is ordered reaches the real one.
  for (const [path, json] of [
    ['productions', { rows: [], next: null }],
    ['readers', []],
    ['volumes', []],
  ] as const)
    await page.route(`**/api/${path}`, (route) =>
      route.request().method() === 'GET' ? route.fulfill({ json }) : route.continue(),
    )
  await page.goto('/')
  await expect(heading(page)).toHaveText('Begin with one card and two drives.')
  // From now on it tells what it knows, but for its productions.
  for (const path of ['readers', 'volumes']) await page.unroute(`**/api/${path}`)
  const begin = page.getByRole('button', { name: /^Begin|^It is meant|^Go on/ })
  await begin.click()
  await expect(page.getByText('Say where the card appears')).toBeVisible()
  await page.getByLabel('First card').fill(folder('CARD'))
  await page.getByLabel('First drive').fill(folder('Drive 1'))
  await page.getByLabel('Second drive').fill(folder('nowhere'))
  await begin.click()
  // A folder with things in it may be a mistake.
  await expect(page.getByText('is an ordinary folder with things in it')).toBeVisible()
  await begin.click()
  await expect(page.getByText(/There is no folder at .*nowhere/)).toBeVisible()
  await expect(page.getByText('Added')).toHaveCount(2)
  await page.getByLabel('Second drive').fill(`${folder('Drive 2')}/`)
  await begin.click()
  await expect(page.getByText('Both drives lie on one device')).toBeVisible()
  await page.unrouteAll()
  await begin.click()
  await expect(heading(page)).toContainText('is in the reader and has not been scanned.')
  await expect(page.getByRole('list', { name: 'Cards in readers' })).toContainText('CARD')
  await page.keyboard.press('5')
  for (const drive of ['Drive 1', 'Drive 2']) await expect(page.getByText(drive, { exact: true }).first()).toBeVisible()
})
