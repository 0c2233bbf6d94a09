import { expect } from '@playwright/test'
import { complaints } from './bench'
import { heading } from './keys'
import { ownHouse, test } from './house'

ownHouse()

test('somebody new presses what is pointed at, from the card to the answer, and is not asked again', async ({
  page,
}) => {
  const said = complaints(page)
  const walk = page.getByRole('region', { name: 'First walk' })
  const pointed = page.locator('[data-pointed]')
  // Each press is made where the walk points, and nowhere else.
  const press = async (step: string) => {
    await expect(walk).toContainText(step)
    await expect(walk).not.toContainText('Nothing is to be done now')
    await pointed.click()
  }
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  await expect(walk).toHaveCount(0)
  await page.getByRole('button', { name: 'Start here' }).click()
  // The card lies in the reader already: the first step is done.
  await press('2 of 5')
  await expect(page).toHaveURL(/cards$/)
  await press('2 of 5')
  await press('3 of 5')
  await expect(page).toHaveURL(/copies$/)
  await press('3 of 5')
  await press('4 of 5')
  await expect(page.getByText('Written down: played from')).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(walk).toContainText('5 of 5')
  await expect(pointed).toContainText('Clear to format “Curlew A”? Yes: this card may be formatted, in the camera.')
  await walk.getByRole('button', { name: 'End of the walk' }).click()
  await expect(pointed).toHaveCount(0)

  // It begins again where the keys are listed, with a card that is put in now, and is left at once.
  await page.keyboard.press('?')
  await page.getByRole('button', { name: /^Start here/ }).click()
  await press('1 of 5')
  await expect(page).toHaveURL(/bench$/)
  await expect(pointed).toHaveText('Put in')
  await walk.getByRole('button', { name: 'Leave the walk' }).click()
  await page.reload()
  await expect(heading(page)).toBeVisible()
  await expect(walk).toHaveCount(0)
  expect(said).toEqual([])
})
