import { expect } from '@playwright/test'
import { join } from 'node:path'
import type { AppearedView } from '../../contract/noticed'
import { cardFolder, debian, volumeFolder, production } from './bench'
import { ownHouse, test } from './house'
import { current, downTo, heading, pressNext, sayProduction, tabTo } from './keys'
import { args } from '../args'

ownHouse()

test('a card travels through all seven stations with the keyboard alone', async ({ page }) => {
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await page.keyboard.press('Escape')

  // A new production, from the palette.
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
  await page.keyboard.type('new prod')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'New production' })).toBeVisible()
  await page.keyboard.type('Plover on the mast')
  await page.keyboard.press('Enter')
  await expect(heading(page)).toContainText('Plan what will be recorded')

  // Shoot: the first camera of the gear book, and its minutes.
  await tabTo(page, /^Add a camera/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Minutes of a take/)
  await page.keyboard.type('20 min')
  await page.keyboard.press('Enter')
  await expect(heading(page)).toContainText('Every take has its card')

  // The other card into the reader, on the bench.
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
  await page.keyboard.type('bench')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /Bench reader/ })).toBeVisible()
  await tabTo(page, /Put in Plover A/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('heading', { name: /Bench reader/ })).toContainText('“Plover A” is in it')
  await page.goBack()

  // Cards.
  await page.keyboard.press('2')
  await expect(heading(page)).toContainText('“Plover A” is in the reader')
  await sayProduction(page, 'Plover on the mast')
  await tabTo(page, /^Scan the card/)
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-clip]')).toHaveCount(3, { timeout: 120_000 })
  await expect(page.locator('[data-finding="empty"]')).toContainText('PLOV0109.MP4')
  await expect(page.locator('[data-finding="unreadable"]')).toContainText('the index is missing')

  // What is wrong is settled by the person; until then the card is to be kept.
  for (const [answer, finding] of [
    ['A false start', 'empty'],
    ['I can do without it', 'unreadable'],
  ] as const) {
    await tabTo(page, new RegExp(`^${answer}`))
    await page.keyboard.press('Enter')
    await expect(page.locator(`[data-finding="${finding}"]`)).toContainText(`${answer}.`)
  }
  await expect(heading(page)).toContainText('2 problems settled by you, nothing else wrong')

  // Copies: two other drives than proposed.
  await page.keyboard.press('3')
  await tabTo(page, /^Tide 1/)
  await page.keyboard.press('Space')
  await tabTo(page, /^Tide 2/)
  await page.keyboard.press('Space')
  await tabTo(page, /^Copy to Slipway and Tide 2/)
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-task="copy"]')).toContainText('All 3 files proved on Slipway and Tide 2', {
    timeout: 120_000,
  })
  await expect(page.locator('[data-volume="Slipway"]')).toHaveAttribute('data-mark', '2')
  await pressNext(page)
  await expect(page.getByText('Written down: played from Slipway.')).toBeVisible({ timeout: 90_000 })
  await page.keyboard.press('Escape')
  await expect(heading(page)).toContainText('Yes: this card may be formatted')

  // Proxies, Storage, Exports, Shelf.
  await page.keyboard.press('n')
  await expect(heading(page)).toContainText('1 clip has no proxy yet')
  await pressNext(page)
  await expect(page.locator('[data-proxy="PLOV0107.MP4"]')).toHaveAttribute('data-state', 'equal', { timeout: 120_000 })
  // The next step leads to the desk where it is done.
  await page.keyboard.press('n')
  await expect(page).toHaveURL(/\/cards\/review$/)
  await downTo(page, 'PLOV0107.MP4')
  await page.keyboard.press('k')
  await expect(current(page)).toHaveAccessibleName(/^PLOV0107\.MP4 .*keep$/)
  // Names and the sorted view come next, each at its desk.
  await expect(page.getByRole('link', { name: 'Next: Name 1 kept clip for the edit.' })).toBeVisible()
  await pressNext(page)
  await tabTo(page, /^Give 1 name/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Next: Put 1 clip into the sorted view for the edit.' })).toBeVisible()
  await page.keyboard.press('n')
  await expect(heading(page)).toContainText('1 file to add')
  await pressNext(page)
  await expect(page.getByRole('link', { name: 'Next: Frame a master for its first destination.' })).toBeVisible({
    timeout: 60_000,
  })
  await page.keyboard.press('5')
  await expect(page.locator('[data-class="originals"]')).toContainText('MB')
  await page.keyboard.press('6')
  // Common practice, no source: 2.7K is too small for a tall frame without inventing pixels.
  await expect(heading(page)).toContainText('invents pixels')
  await tabTo(page, /^Destination/)
  await page.keyboard.type('Wide')
  await expect(heading(page)).toContainText('every pixel is real')
  await tabTo(page, /^Crop window/)
  await page.keyboard.press('+')
  await page.keyboard.press('Shift+ArrowRight')
  await page.keyboard.press('ArrowDown')
  const figures = await page.getByLabel('Figures of this framing').innerText()
  const [width = 0, height = 0, x = 0, y = 0] = /(\d+)×(\d+) at (\d+), (\d+)/.exec(figures)?.slice(1).map(Number) ?? []
  expect(width).toBeLessThan(2704)
  expect(x).toBeGreaterThan((2704 - width) / 2 + 20)
  expect(y).toBeGreaterThanOrEqual((1520 - height) / 2)
  await pressNext(page)
  await expect(page.locator('[data-deliverable="Wide watch page"]')).toHaveAttribute('data-pass', 'true', {
    timeout: 120_000,
  })
  await page.keyboard.press('7')
  await expect(heading(page)).toContainText('No film is on the shelf yet')
  await pressNext(page)
  await expect(page.locator('[data-bag]')).toContainText('read back, equal', { timeout: 120_000 })

  // Source: diff, sha256sum and ffprobe of Debian.
  expect(
    debian('diff', ['-r', cardFolder('Plover A'), join(volumeFolder('Tide 2'), 'Plover on the mast/Cards/Plover A')]),
  ).toBe('')
  expect(
    debian(
      'sha256sum',
      ['--strict', '-c', 'manifest-sha256.txt'],
      join(volumeFolder('Tide 1'), 'Plover on the mast/Shelf/PLOV0107 wide watch page'),
    ),
  ).toContain('OK')
  const rate = debian('ffprobe', [
    ...args('-v error -select_streams v -show_entries stream=width,height,r_frame_rate -of csv=p=0'),
    join(volumeFolder('Slipway'), 'Plover on the mast/Output/PLOV0107 wide watch page.mp4'),
  ])
  expect(rate.trim()).toBe('1920,1080,100/1')

  await page.keyboard.press('0')
  await expect(production(page, 'Plover on the mast')).toBeVisible()
})

test('in an empty world the next step is the first production, and a card says that it waits for it', async ({
  page,
}) => {
  const card: AppearedView = {
    ...{ id: 'c', name: 'HERON', path: '/media/HERON', appearedAt: '' },
    offer: { kind: 'card', sentence: 'A card appeared: “HERON”.' },
  }
  await page.route(/\/api\/productions(\?|$)/, (route) => route.fulfill({ json: { rows: [], next: null } }))
  await page.route('**/api/appeared', (route) => route.fulfill({ json: [card] }))
  await page.goto('/locker')
  const news = page.getByRole('region', { name: 'Just appeared' })
  await expect(news).toHaveText('A card appeared: “HERON”. Begin a production, so that it can be taken in.')
  await page.keyboard.press('n')
  // The address is another before its page is there.
  await expect(page).toHaveURL(/:\d+\/$/)
  await expect(heading(page)).toHaveText('No production yet.')
  await page.keyboard.press('n')
  await expect(page.locator('[data-primary]:focus')).toHaveText('New production')
  await page.keyboard.press('Shift+?')
  await expect(page.getByRole('dialog', { name: 'Keys' })).toBeVisible()
  await page.keyboard.press('Escape')
  await page.goto('/locker')
  await expect(news).toBeVisible()
  // Twice before anything is drawn anew.
  await page.evaluate(() => {
    for (let turn = 0; turn < 2; turn += 1) window.dispatchEvent(new KeyboardEvent('keydown', { key: 'n' }))
  })
  await expect(page.locator('[data-primary]:focus')).toHaveText('New production')
})
