import { expect } from '@playwright/test'
import { choose, productionId } from './bench'
import { more, ownHouse, test } from './house'

ownHouse()

test('on the bench a drive is unplugged and plugged in again, and the stations follow', async ({ page, request }) => {
  const storage = `/p/${await productionId(request, 'Steam-bending ribs')}/storage`
  await page.goto('/bench')
  const tide = page.getByRole('region', { name: 'Device Tide 2' })
  await tide.getByRole('button', { name: 'Unplug Tide 2' }).click()
  await expect(tide).toContainText('unplugged')
  await page.goto(storage)
  await expect(page.locator('[data-volume="Tide 2"]')).toContainText('not connected')
  await page.goto('/bench')
  await tide.getByRole('button', { name: 'Plug in Tide 2' }).click()
  await expect(tide).toContainText('plugged in')
  await page.goto(storage)
  await expect(page.locator('[data-volume="Tide 2"]')).not.toContainText('not connected')
})

more('a fault is switched on and off, and the page says where one waits', async ({ page }) => {
  await page.goto('/bench')
  const slipway = page.getByRole('region', { name: 'Device Slipway' })
  await choose(page, slipway.getByLabel('Fault'), 'full')
  await slipway.getByLabel('After').fill('nonsense')
  await slipway.getByRole('button', { name: 'Switch on' }).click()
  await expect(slipway.getByRole('button', { name: 'Switch off' })).toHaveCount(0)
  await slipway.getByLabel('After').fill('3 GB')
  await slipway.getByRole('button', { name: 'Switch on' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('A fault waits in Slipway.')
  await expect(slipway).toContainText('full after 3.00 GB')
  await slipway.getByRole('button', { name: 'Switch off' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('Practise here: every device is healthy.')
})

more('a card lies in the reader or in the box, never in both', async ({ page }) => {
  await page.goto('/bench')
  const reader = page.getByRole('heading', { name: /Bench reader/ })
  const other = (await reader.innerText()).includes('Field 1') ? 'Curlew A' : 'Field 1'
  await page.getByRole('button', { name: `Put in ${other}`, exact: true }).click()
  await expect(reader).toContainText(`“${other}” is in it`)
  await expect(page.getByRole('button', { name: /^Take out/ })).toHaveCount(1)
  await page.getByRole('button', { name: /^Take out/ }).click()
  await expect(reader).toContainText('empty')
  await expect(page.getByRole('button', { name: /^Put in/ })).toHaveCount(11)
})
