import { existsSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type APIRequestContext, type Page } from '@playwright/test'
import { expectAccessible } from './access'
import { cardFolder, choose, debian, deviceId, filmAgain, post, productionId, volumeFolder } from './bench'
import { more, ownHouse, test } from './house'
import { current, downTo, heading, sayProduction, tabTo } from './keys'
import { args } from '../args'

ownHouse()

test.describe.configure({ mode: 'serial' })

const TITLE = 'Six cards in one night'
const RIG = 'Low water at the pole'
const CARDS = ['Field 1', 'Plover A', 'Curlew A', 'Teal', 'Heron A', 'Curlew B'] as const

const load = (page: Page, card: string) => page.getByRole('region', { name: `Load ${card}`, exact: true })

/** What a hand does on the bench: the only thing that needs no key. */
async function putIn(request: APIRequestContext, card: string): Promise<void> {
  await post(request, `/bench/${await deviceId(request, 'Bench reader')}/insert`, { card })
}

/** Looks at the card in the reader and copies it, by keys. */
async function bringHome(page: Page, card: string): Promise<void> {
  await page.keyboard.press('2')
  await expect(heading(page)).toContainText(`“${card}” is in the reader`)
  await page.keyboard.press('Tab')
  await sayProduction(page, TITLE)
  await tabTo(page, /^Scan the card/)
  await page.keyboard.press('Enter')
  await expect(heading(page)).toContainText(new RegExp(`^“${card}”: \\d+ clips?`), { timeout: 120_000 })
  await page.keyboard.press('3')
  await expect(heading(page)).toContainText(`Clear to format “${card}”?`)
  await tabTo(page, /^Copy to .* and .*, and prove it$/)
  await page.keyboard.press('Enter')
  await expect(page.locator('[data-task="copy"]')).toContainText(/All \d+ files proved on/, { timeout: 120_000 })
}

more(
  'six cards come home in one night, are chosen from and leave as a timeline, by keyboard alone',
  async ({ page, request }) => {
    CARDS.forEach(filmAgain)
    await page.goto('/')
    await expect(heading(page)).toBeVisible()
    await page.keyboard.press('Control+k')
    await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
    await page.keyboard.type('new prod')
    await page.keyboard.press('Enter')
    await expect(page.getByRole('dialog', { name: 'New production' })).toBeVisible()
    await page.keyboard.type(TITLE)
    await page.keyboard.press('Enter')
    await expect(heading(page)).toContainText('Plan what will be recorded')
    for (const card of CARDS) {
      await putIn(request, card)
      await bringHome(page, card)
    }

    // One that was copied already is known before anybody copies it again.
    await putIn(request, 'Field 1')
    await page.keyboard.press('2')
    await expect(heading(page)).toContainText('“Field 1”: 2 clips')
    await expect(load(page, 'Field 1')).toContainText('All of this is verified on')

    // What is wrong with the others is said of each of them, and of no other.
    const said = [
      ['Plover A', 'unreadable', 'the index is missing'],
      ['Curlew A', 'gap', 'CURL0042 to CURL0044'],
      ['Teal', 'clock-off', '4 h ahead'],
      ['Heron A', 'frames-missing', '17'],
    ] as const
    for (const [card, kind, words] of said)
      await expect(load(page, card).locator(`[data-finding="${kind}"]`)).toContainText(words)
    await expect(load(page, 'Curlew B')).toContainText('3 clips, 11 files')
    await expect(load(page, 'Curlew B').locator('[data-finding]')).toHaveCount(0)

    // The clock is put right with one key, after the way to it.
    await tabTo(page, /^Show its times 4 h earlier/)
    await page.keyboard.press('Enter')
    await expect(load(page, 'Teal').locator('[data-finding="clock-moved"]')).toBeVisible()

    await tabTo(page, /^Review$/)
    await page.keyboard.press('Enter')
    await expect(heading(page)).toContainText('none of them looked at')
    const keep = async (name: string) => {
      await page.keyboard.press('k')
      await expect(current(page)).toHaveAccessibleName(new RegExp(`${name.replace('.', '\\.')} .*keep$`))
    }
    await downTo(page, 'FLD10001.WAV')
    await keep('FLD10001.WAV')
    await downTo(page, 'CURL0041.MP4')
    await expect(page.getByText(/^The copy on /)).toBeVisible()
    for (let turn = 0; turn < 5; turn += 1) await page.keyboard.press('ArrowRight')
    await page.keyboard.press('i')
    await page.keyboard.press('Shift+ArrowRight')
    await page.keyboard.press('o')
    await keep('CURL0041.MP4')
    await downTo(page, 'C0053.MP4')
    await keep('C0053.MP4')
    await expect(heading(page)).toContainText('3 of ')

    await tabTo(page, /^Pass them on/)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('menuitem', { name: /^For an editing program/ })).toBeFocused()
    const [otio] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')])
    const timeline = JSON.parse(readFileSync(await otio.path(), 'utf8')) as {
      OTIO_SCHEMA: string
      tracks: { children: { children: unknown[] }[] }
    }
    expect(timeline.OTIO_SCHEMA).toBe('Timeline.1')
    // Two films with their own sound beside them, and a recording.
    expect(timeline.tracks.children.map(({ children }) => children.length)).toEqual([2, 2, 1])

    await tabTo(page, /^Sorted view$/)
    await page.keyboard.press('Enter')
    await expect(heading(page)).toContainText('3 files to add')
    await tabTo(page, /^Bring the view up to date/)
    await page.keyboard.press('Enter')
    await expect(heading(page)).toContainText('The sorted view is up to date: 3 files.', { timeout: 60_000 })
    const placed = debian('find', [join(volumeFolder('Slipway'), TITLE), ...args('-name *.MP4 -not -path */Cards/*')])
    expect(placed.match(/CURL0041\.MP4|C0053\.MP4/g)).toHaveLength(2)

    await page.goto(`${page.url().replace(/\/cards\/.*/, '/cards/review')}`)
    await tabTo(page, /^Pass them on/)
    await page.keyboard.press('Enter')
    // A letter jumps to the entry that begins with it.
    await page.keyboard.press('c')
    await expect(page.getByRole('menuitem', { name: /^Contact sheet/ })).toBeFocused()
    await page.keyboard.press('Enter')
    await expect(page.getByText('3 pieces of 3 clips')).toBeVisible()

    // Source: diff of Debian. Every card lies whole on the volume, under its own name.
    for (const card of CARDS)
      expect(debian('diff', ['-r', cardFolder(card), join(volumeFolder('Slipway'), TITLE, 'Cards', card)])).toBe('')
    expect(existsSync(join(volumeFolder('Slipway'), TITLE, 'Cards/Curlew A.xxh64'))).toBe(true)
  },
)

more(
  'the cards of a rig are tied, the odd lens is named, and one row stands for all in review',
  async ({ page, request }) => {
    await post(request, '/productions', { title: RIG })
    await post(request, `/bench/${await deviceId(request, 'Second reader')}/eject`)
    await page.goto(`/p/${await productionId(request, RIG)}/cards`)
    for (const lens of [1, 2, 3]) {
      await putIn(request, `Pole ${lens}`)
      await expect(heading(page)).toContainText(`“Pole ${lens}” is in the reader`)
      await choose(page, page.getByRole('combobox', { name: 'For which production' }), RIG)
      await page.getByRole('button', { name: 'Scan the card' }).click()
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
  },
)

more(
  'the second card of a camera is known as a backup card, and read whole against what was proved',
  async ({ page, request }) => {
    filmAgain('Curlew A slot 2')
    await putIn(request, 'Curlew A slot 2')
    const id = await productionId(request, TITLE)
    await page.goto(`/p/${id}/cards`)
    await expect(heading(page)).toContainText(
      'Curlew A slot 2 is the backup card of “Curlew A”: the same files on another card.',
    )
    await page.goto(`/p/${id}/copies`)
    await page.getByRole('tab', { name: /^Curlew A/ }).click()
    // Only the twin lies in a reader: the answer is about that one.
    await expect(heading(page)).toContainText('Clear to format “Curlew A slot 2”, the backup card of “Curlew A”?')
    await page.getByRole('button', { name: 'Read it whole' }).click()
    await expect(page.locator('[data-twin="Curlew A slot 2"]')).toContainText('7 of 7 files equal', { timeout: 60_000 })
    await expectAccessible(page, 'a backup card')
  },
)

more('clips of one card are reassigned to another production', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, TITLE)}/cards`)
  const row = (name: string) => page.getByRole('row', { name: new RegExp(`^.*${name}`) })
  await load(page, 'Curlew B').getByRole('button', { name: 'Show 3 clips' }).or(row('C0052.MP4')).first().click()
  await row('C0052.MP4').click()
  await page.getByRole('button', { name: 'Reassign to another production' }).click()
  await choose(page, page.getByRole('combobox', { name: 'Production' }), RIG)
  await page.getByRole('button', { name: 'Reassign it' }).click()
  await expect(row('C0052.MP4')).toContainText(`reassigned to “${RIG}”`)
  await page.goto(`/p/${await productionId(request, RIG)}/cards`)
  await expect(load(page, 'Curlew B')).toContainText(`1 of its 3 clips, reassigned from ${TITLE}`)
})
