import { AxeBuilder } from '@axe-core/playwright'
import { expect, type Page } from '@playwright/test'

/** WCAG 2.2, levels A and AA, as axe checks them; its experimental rule for labels in names as well. */
async function faults(page: Page, only?: string): Promise<string[]> {
  const axe = new AxeBuilder({ page })
  const rules = only
    ? axe.withRules([only])
    : axe
        .withTags(['wcag2a', 'wcag2aa', 'wcag21a', 'wcag21aa', 'wcag22aa', 'best-practice'])
        .options({ rules: { 'label-content-name-mismatch': { enabled: true } } })
  const { violations } = await rules.analyze()
  return violations.map(({ id, nodes }) => `${id}: ${nodes.map((node) => node.html.slice(0, 160)).join(' | ')}`)
}

const setTheme = (page: Page, theme: string) =>
  page.evaluate((name) => void (document.documentElement.dataset.theme = name), theme)

/** Whole by day; by night colours are all that differs, and they do not hang on the size of the screen. */
export async function expectAccessible(page: Page, what: string, themes: 'day' | 'both' = 'both'): Promise<void> {
  await setTheme(page, 'day')
  expect(await faults(page), `${what} by day`).toEqual([])
  if (themes === 'day') return
  await setTheme(page, 'night')
  expect(await faults(page, 'color-contrast'), `${what} by night`).toEqual([])
  await setTheme(page, 'day')
}
