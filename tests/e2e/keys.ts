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
}

export const heading = (page: Page) => page.getByRole('heading', { level: 1 })
