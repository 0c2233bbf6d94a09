import { expect, type Page } from '@playwright/test'

/** Moves the focus with Tab until it stands on what is wanted, as somebody without a mouse does. */
export async function tabTo(page: Page, name: RegExp, most = 120): Promise<void> {
  for (let turn = 0; turn < most; turn += 1) {
    const label = await page.evaluate(() => {
      const at = document.activeElement
      if (!(at instanceof HTMLElement)) return ''
      const labels =
        'labels' in at ? [...((at as HTMLInputElement).labels ?? [])].map((one) => one.innerText).join(' ') : ''
      return at.getAttribute('aria-label') ?? (labels || at.innerText)
    })
    if (name.test(label)) return
    await page.keyboard.press('Tab')
  }
  throw new Error(`Nothing called ${String(name)} can be reached with Tab`)
}

/** n puts the focus on the station's main button, Enter presses it. */
export async function pressNext(page: Page): Promise<void> {
  await page.keyboard.press('n')
  await expect(page.locator('[data-primary]:focus')).toBeVisible()
  await page.keyboard.press('Enter')
  // What was pressed may be gone or not to be pressed now: the focus is never nowhere.
  await expect.poll(() => page.evaluate(() => document.activeElement === document.body)).toBe(false)
}

/** Says for which production the card that waits is, by the first word of its title. */
export async function sayProduction(page: Page, title: string): Promise<void> {
  await tabTo(page, /^For which production/)
  await page.keyboard.type(title.split(' ')[0] ?? '')
  await expect(page.getByRole('combobox', { name: 'For which production' })).toHaveText(title)
}

export const heading = (page: Page) => page.getByRole('heading', { level: 1 })

/** Clips of the Review desk, and the one that is open. */
export const clips = (page: Page) => page.getByRole('listbox', { name: 'Clips' })
export const current = (page: Page) => clips(page).getByRole('option', { selected: true })

/** Down through the clips until one is open. */
export async function downTo(page: Page, name: string): Promise<void> {
  await expect(current(page)).toBeVisible()
  for (let turn = 0; turn < 40; turn += 1) {
    const open = await current(page).getAttribute('id')
    if ((await current(page).innerText()).includes(name)) return
    await page.keyboard.press('ArrowDown')
    await expect(current(page)).not.toHaveAttribute('id', open ?? '')
  }
  throw new Error(`${name} is not among the clips`)
}
