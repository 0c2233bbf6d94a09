import { expect, test, type APIRequestContext, type Page } from '@playwright/test'
import { expectAccessible } from './access'
import { choose, deviceId, filmAgain, post, productionId } from './bench'
import { heading } from './keys'

test.describe.configure({ mode: 'serial' })

const TITLE = 'Low water at the pole'
/** What the story before this one brought home. */
const NIGHT = 'Six cards in one night'

async function putIn(request: APIRequestContext, reader: string, card: string): Promise<void> {
  await post(request, `/bench/${await deviceId(request, reader)}/insert`, { card })
}
const load = (page: Page, card: string) => page.getByRole('region', { name: `Load ${card}`, exact: true })

test('the cards of a rig are tied, the odd lens is named, and one row stands for all in review', async ({
  page,
  request,
}) => {
  await post(request, '/productions', { title: TITLE })
  await post(request, `/bench/${await deviceId(request, 'Second reader')}/eject`)
  await page.goto(`/p/${await productionId(request, TITLE)}/cards`)
  for (const lens of [1, 2, 3]) {
    await putIn(request, 'Bench reader', `Pole ${lens}`)
    await expect(heading(page)).toContainText(`“Pole ${lens}” is in the reader`)
    await page.getByRole('button', { name: 'Look at the card' }).click()
    await expect(load(page, `Pole ${lens}`)).toBeVisible({ timeout: 60_000 })
    await expect(heading(page)).toContainText(`“Pole ${lens}”:`)
  }
  await expect(page.getByText('Are these 3 cards the lenses of one rig?')).toBeVisible()
  await page.getByRole('button', { name: 'Yes, tie them' }).click()
  await page.getByLabel('Name of the rig').fill('Pole')
  await expectAccessible(page, 'tying a rig')
  await page.getByRole('button', { name: 'Tie 3 cards' }).click()
  const rig = page.locator('[data-rig="Pole"]')
  await expect(rig).toContainText('3 cards, 3 takes; “Pole 3” is odd (nothing beside POLE0002.MP4).')
  await expect(load(page, 'Pole 3').locator('[data-finding="rig"]')).toContainText('“Pole 3” is the odd one')
  await page.getByRole('link', { name: 'Review' }).click()
  await expect(heading(page)).toContainText('3 clips, none of them looked at')
  await expect(page.getByRole('option').nth(1)).toContainText('2 lenses')
})

test('the second card of a camera is known as a twin, and read whole against what was proved', async ({
  page,
  request,
}) => {
  filmAgain('Curlew A slot 2')
  await putIn(request, 'Bench reader', 'Curlew A slot 2')
  const id = await productionId(request, NIGHT)
  await page.goto(`/p/${id}/cards`)
  await expect(heading(page)).toContainText(
    'Curlew A slot 2 is the twin of “Curlew A”: the same files on another card.',
  )
  await page.goto(`/p/${id}/copies`)
  await page.getByRole('tab', { name: /^Curlew A/ }).click()
  // Only the twin lies in a reader: the answer is about that one.
  await expect(heading(page)).toContainText('Clear to format “Curlew A slot 2”, the twin of “Curlew A”?')
  await page.getByRole('button', { name: 'Read it whole' }).click()
  await expect(page.locator('[data-twin="Curlew A slot 2"]')).toContainText('7 of 7 files equal', { timeout: 60_000 })
  await expectAccessible(page, 'a twin')
})

test('clips of one card are given to another production', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, NIGHT)}/cards`)
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^.*${name}`) })
  await load(page, 'Curlew B').getByRole('button', { name: 'Show 3 clips' }).or(row('C0052.MP4')).first().click()
  await row('C0052.MP4').click()
  await page.getByRole('button', { name: 'Give to another production' }).click()
  await choose(page, page.getByRole('combobox', { name: 'Production' }), TITLE)
  await page.getByRole('button', { name: 'Give it away' }).click()
  await expect(row('C0052.MP4')).toContainText(`given to “${TITLE}”`)
  await page.goto(`/p/${await productionId(request, TITLE)}/cards`)
  await expect(load(page, 'Curlew B')).toContainText(`1 of its 3 clips, given by ${NIGHT}`)
})
