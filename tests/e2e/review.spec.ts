import { mkdtempSync, readFileSync, realpathSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, type APIRequestContext, type Page } from '@playwright/test'
import type { ReviewClip } from '../../contract/review'
import { expectAccessible } from './access'
import {
  cardFolder,
  choose,
  complaints,
  debian,
  deviceId,
  post,
  productionId,
  startTask,
  taskEnd,
  volumeFolder,
  volumeIds,
} from './bench'
import { more, ownHouse, test } from './house'
import { clips, current, downTo, heading } from './keys'

ownHouse()

test.describe.configure({ mode: 'serial' })

const TITLE = 'Stripping the clinker hull'
let production = ''

async function scan(request: APIRequestContext, readerId: string, label: string): Promise<void> {
  const task = await startTask(request, `/readers/${readerId}/scan`, { productionId: production, label })
  expect((await taskEnd(request, task)).state).toBe('done')
}

const newFolder = (name: string) => realpathSync(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), name)))
const [root, card] = [newFolder('yendra-tape-'), newFolder('yendra-split-')]
test.afterAll(() => {
  for (const folder of [root, card]) rmSync(folder, { recursive: true, force: true })
})

test.beforeAll(async ({ playwright, baseURL }) => {
  const request = await playwright.request.newContext({ baseURL: baseURL ?? '' })
  production = await productionId(request, TITLE)
  await request.dispose()
})

/** Every key and every press of the mouse that a person makes on a page, also across addresses. */
async function countPresses(page: Page): Promise<() => Promise<number>> {
  await page.addInitScript(() => {
    const count = (event: Event) => {
      if (event.isTrusted) sessionStorage.setItem('presses', String(Number(sessionStorage.getItem('presses')) + 1))
    }
    for (const kind of ['pointerdown', 'keydown']) window.addEventListener(kind, count, true)
  })
  return () => page.evaluate(() => Number(sessionStorage.getItem('presses')))
}

test('from a card put in to clear to format are five presses at most, by mouse and by keyboard alone', async ({
  page,
  request,
}) => {
  const reader = await deviceId(request, 'Bench reader')
  await post(request, `/bench/${reader}/eject`)
  const presses = await countPresses(page)
  const trial = String((await post(request, '/productions', { title: 'Sea trial' })).body?.id)
  const news = page.getByRole('region', { name: 'Just appeared' })
  const play = page.getByRole('button', { name: 'Play it' })
  for (const [card, by] of [
    ['Teal', 'mouse'],
    ['Field 1', 'keys'],
  ] as const) {
    await page.goto(`/p/${trial}/shoot`)
    await expect(page.getByRole('navigation', { name: 'Desks of Shoot' })).toBeVisible()
    await post(request, `/bench/${reader}/insert`, { card })
    await expect(news).toContainText(`A card appeared: “${card}”, 128 GB, nearly empty.`)
    await expect(heading(page)).toBeVisible()
    await expectAccessible(page, 'a card that appeared')
    const before = await presses()
    // Whose film it is, is asked: the proposal is another than the page that is open, and is not taken.
    await expect(news).toContainText('It seems to be for')
    if (by === 'mouse') {
      await choose(page, news.getByRole('combobox', { name: 'For which production' }), 'Sea trial')
      // The answer comes after the news that the card is being looked at, with which the line goes.
      await page.route('**/scan', async (route) => {
        const response = await route.fetch()
        await expect(news).toBeHidden()
        await route.fulfill({ response })
      })
      await news.getByRole('button', { name: 'Take it in' }).click()
      await play.click({ timeout: 120_000 })
    } else {
      // The card before it was filmed in the same hours: one key takes it in for that production.
      await expect(news).toContainText('It seems to be for “Sea trial”: filmed together with 1 card of it')
      await page.keyboard.press('c')
      await expect(play).toBeFocused({ timeout: 120_000 })
      await page.keyboard.press('Enter')
    }
    await expect(page.getByText('Written down: played from')).toBeVisible({ timeout: 30_000 })
    await expect(page.getByRole('button', { name: 'It is whole: close' })).toBeFocused()
    await page.keyboard.press('Enter')
    await expect(heading(page)).toContainText(`Clear to format “${card}”? Yes`)
    expect((await presses()) - before).toBeLessThanOrEqual(by === 'mouse' ? 5 : 3)
    // Source: diff of Debian's diffutils.
    for (const drive of ['Slipway', 'Tide 1'])
      expect(debian('diff', ['-r', cardFolder(card), join(volumeFolder(drive), `Sea trial/Cards/${card}`)])).toBe('')
  }
  for (const card of ['Heron A', 'Curlew B']) {
    await post(request, `/bench/${reader}/insert`, { card })
    await scan(request, reader, card)
  }
})

const clock = (page: Page) => page.getByText(/^\d\d:\d\d:\d\d:\d\d$/)

test('clips are watched, cut into ranges and chosen by keyboard alone', async ({ page, request }) => {
  const said = complaints(page)
  await page.goto(`/p/${production}/cards`)
  await page.getByRole('link', { name: 'Review' }).focus()
  await page.keyboard.press('Enter')
  await expect(heading(page)).toContainText('none of them looked at')
  // A camera proxy is no clip of its own, and 48 frames are one.
  await expect(clips(page).getByRole('option')).toHaveCount(4)
  await downTo(page, 'C0051.MP4')
  await expect(page.getByText('The card in Bench reader')).toBeVisible()

  // Ten frames on, in; fifteen more, out.
  for (let turn = 0; turn < 10; turn += 1) await page.keyboard.press('ArrowRight')
  await expect(clock(page)).toHaveText('00:00:00:10')
  await page.keyboard.press('i')
  for (let turn = 0; turn < 15; turn += 1) await page.keyboard.press('ArrowRight')
  await page.keyboard.press('o')
  await expect(page.getByRole('list', { name: 'Ranges' })).toContainText('00:00:00:10 – 00:00:01:00')
  await page.keyboard.press('Shift+ArrowRight')
  await expect(clock(page)).toHaveText('00:00:02:00')
  await page.keyboard.press('i')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('o')
  await expect(page.getByRole('list', { name: 'Ranges' }).getByRole('listitem')).toHaveCount(2)
  await page.keyboard.press('x')
  await expect(page.getByRole('list', { name: 'Ranges' }).getByRole('listitem')).toHaveCount(1)
  await page.keyboard.press('k')
  await expect(current(page)).toHaveAccessibleName(/^C0051\.MP4 .*keep$/)
  await page.keyboard.press('t')
  await page.keyboard.type('the last rib, good steam')
  await page.keyboard.press('Escape')
  await expect(heading(page)).toHaveText('1 of 4 clips kept, 0.64 s used; 3 are still to be looked at.')

  // Enter goes on to what is not decided; once more takes a verdict back.
  await page.keyboard.press('Enter')
  await expect(current(page)).toHaveAccessibleName(/^C0052\.MP4 .*not decided$/)
  await page.keyboard.press('m')
  await page.keyboard.press('m')
  await page.keyboard.press('r')
  await page.keyboard.press('ArrowDown')
  await expect(current(page)).toHaveAccessibleName(/^C0053/)
  await page.keyboard.press('Space')
  await expect
    .poll(() => page.locator('video').evaluate((film: HTMLVideoElement) => film.currentTime))
    .toBeGreaterThan(0.4)
  await page.keyboard.press('Space')
  await expect(page.getByRole('button', { name: 'Play', exact: true })).toBeVisible()
  await expect(clock(page)).not.toHaveText('00:00:00:00')
  await page.keyboard.press('k')
  await expect(heading(page)).toContainText('2 of 4 clips kept')
  // Where there are no keys.
  const ranges = page.getByRole('list', { name: 'Ranges' }).getByRole('listitem')
  await page.getByRole('button', { name: 'Begins here' }).click()
  await expect(page.getByRole('button', { name: 'Begins here' })).toHaveAttribute('aria-pressed', 'true')
  for (let turn = 0; turn < 2; turn += 1) await page.getByRole('button', { name: 'One frame on' }).click()
  await page.getByRole('button', { name: 'Ends here' }).click()
  await expect(ranges).toHaveText([/0\.12 s/])
  await page.getByRole('button', { name: /^Remove the range/ }).click()
  await expect(ranges).toHaveCount(0)
  await expectAccessible(page, 'the review')
  await page.keyboard.press('?')
  await expect(page.getByRole('dialog')).toContainText('Keep; once more takes it back')
  await page.keyboard.press('Escape')

  const { rows } = (await (await request.get(`/api/productions/${production}/review`)).json()) as { rows: ReviewClip[] }
  const kept = rows.find((clip) => clip.name === 'C0051.MP4')
  expect(kept?.review).toMatchObject({
    verdict: 'keep',
    ranges: [{ from: 10, to: 26 }],
    note: 'the last rib, good steam',
  })
  const beyond = await request.put(`/api/clips/${kept?.id}/review`, {
    data: { verdict: 'keep', ranges: [{ from: 0, to: 1_000_000 }], note: '', shotId: null },
  })
  expect(beyond.status()).toBe(422)
  expect(said).toEqual([])
})

more('frames a file each are looked at one by one', async ({ page, request }) => {
  await post(request, `/bench/${await deviceId(request, 'Bench reader')}/insert`, { card: 'Heron A' })
  await page.goto(`/p/${production}/cards/review`)
  await downTo(page, 'heron_000001.tif')
  const still = page.getByRole('img', { name: 'Frame of heron_000001.tif' })
  await expect.poll(() => still.evaluate((image: HTMLImageElement) => image.naturalWidth)).toBeGreaterThan(0)
  await page.keyboard.press('Shift+ArrowRight')
  await expect(clock(page)).toHaveText('00:00:01:00')
  await expect(still).toHaveAttribute('src', /at=1\.02$/)
  // Played as fast as the server draws them, which is said.
  await page.keyboard.press('Space')
  await expect(page.getByText(/^\d+ of 25 a second$/)).toBeVisible()
  await expect(clock(page)).not.toHaveText('00:00:01:00')
})

test('what is kept leaves as a timeline, a table and a contact sheet, from the copy once there is one', async ({
  page,
  request,
}) => {
  const { rows: loads } = (await (await request.get(`/api/productions/${production}/loads`)).json()) as {
    rows: { id: string; label: string }[]
  }
  const load = loads.find(({ label }) => label === 'Curlew B')?.id ?? ''
  await post(request, `/bench/${await deviceId(request, 'Bench reader')}/insert`, { card: 'Curlew B' })
  const drives = await volumeIds(request, 'Slipway')
  const copy = await startTask(request, `/loads/${load}/copies`, { volumeIds: drives, setAside: false })
  expect((await taskEnd(request, copy)).state).toBe('done')
  await page.goto(`/p/${production}/cards/review`)
  await downTo(page, 'C0051.MP4')
  await expect(page.getByText('The copy on Slipway')).toBeVisible()
  const handOn = page.getByRole('button', { name: 'Pass them on' })
  const entry = (name: RegExp) => page.getByRole('menuitem', { name })
  await handOn.click()
  // While a menu is open, keys of the page mean nothing: no station, no verdict, no other clip.
  for (const key of ['3', 'r', 'ArrowDown', 'Escape']) await page.keyboard.press(key)
  await expect(handOn).toBeFocused()
  await expect(page).toHaveURL(/cards\/review/)
  await expect(current(page)).toHaveAccessibleName(/^C0051\.MP4 .*keep$/)
  await handOn.click()
  const [otio] = await Promise.all([page.waitForEvent('download'), entry(/^For an editing program/).click()])
  expect(otio.suggestedFilename()).toBe(`${TITLE} selects.otio`)
  const text = readFileSync(await otio.path(), 'utf8')
  const url = /"target_url": "(file:[^"]+)"/.exec(text)?.[1] ?? ''
  // The address is that of the copy: Debian's cmp finds it equal to what lies there.
  const path = decodeURIComponent(new URL(url).pathname)
  expect(path.startsWith(volumeFolder('Slipway'))).toBe(true)
  expect(debian('ffprobe', ['-v', 'error', '-show_entries', 'format=duration', '-of', 'csv=p=0', path])).toMatch(/^3/)
  await handOn.click()
  const [table] = await Promise.all([page.waitForEvent('download'), entry(/^As a table/).click()])
  expect(readFileSync(await table.path(), 'utf8').split('\r\n')[1]).toContain(
    'CLIP/C0051.MP4,Curlew B,keep,,10,25,25/1,0.640',
  )
  // Names by a pattern are shown first, given, and taken back.
  await page.getByRole('button', { name: 'Name them' }).click()
  await page.getByLabel('Pattern').fill('{scene}')
  await expect(page.getByText('{scene} means nothing')).toBeVisible()
  await page.getByLabel('Pattern').fill('{load} rib {take}')
  await expect(page.getByRole('row', { name: 'C0053.MP4 Curlew B rib 02' })).toBeVisible()
  await page.getByRole('button', { name: 'Give 2 names' }).click()
  await expect(current(page)).toContainText('Curlew B rib 01')
  await expect(page.getByRole('status', { name: 'What was changed' })).toContainText('2 names changed.')
  await page.getByRole('button', { name: /^Take it back/ }).click()
  await expect(current(page)).toContainText('C0051.MP4')
  await handOn.click()
  await entry(/^Contact sheet/).click()
  await expect(page.getByText('2 pieces of 2 clips')).toBeVisible()
  await expect
    .poll(() =>
      page
        .locator('li img')
        .evaluateAll((all) => all.filter((one) => (one as HTMLImageElement).naturalWidth > 0).length),
    )
    .toBe(4)
  await expectAccessible(page, 'the contact sheet', 'day')
})

more('kept clips are sorted into folders by keys and by dragging, and that is taken back', async ({ page }) => {
  const said = complaints(page)
  await page.goto(`/p/${production}/cards/sorted`)
  await expect(heading(page)).toContainText('2 files to add')
  const clip = (name: string) => page.getByRole('option', { name: new RegExp(`^${name}`) })
  const folder = (path: string) => page.getByRole('listbox', { name: path })
  await clip('C0051').focus()
  await page.keyboard.press('a')
  await expect(folder('Video/A-roll')).toContainText('C0051')
  await clip('C0053').hover()
  await page.mouse.down()
  const target = (await page.getByText('Video/A-roll', { exact: true }).first().boundingBox()) ?? { x: 0, y: 0 }
  await page.mouse.move(target.x + 20, target.y + 30, { steps: 8 })
  await page.mouse.move(target.x + 24, target.y + 8, { steps: 4 })
  await page.mouse.up()
  await expect(folder('Video/A-roll')).toContainText('C0053')
  await clip('C0053').focus()
  await page.keyboard.press('r')
  await expect(folder('Video/B-roll')).toContainText('C0053')
  await expectAccessible(page, 'the sorted view')
  await page.getByRole('button', { name: 'Bring the view up to date' }).click()
  await expect(heading(page)).toContainText('The sorted view is up to date: 2 files.', { timeout: 30_000 })
  const [view, mirror] = [
    join(volumeFolder('Slipway'), TITLE),
    join(volumeFolder('Slipway'), TITLE, 'Cards/Curlew B/CLIP'),
  ]
  debian('cmp', [join(view, 'Video/A-roll/C0051.MP4'), join(mirror, 'C0051.MP4')])
  debian('cmp', [join(view, 'Video/B-roll/C0053.MP4'), join(mirror, 'C0053.MP4')])
  await page.getByRole('button', { name: /^Undo the 2 changes/ }).click()
  await expect(heading(page)).toContainText('2 files to add', { timeout: 30_000 })
  expect(() => debian('ls', [join(view, 'Video/A-roll/C0051.MP4')])).toThrow()
  await page.getByLabel(/^Editing has begun/).click()
  await expect(page.getByLabel(/^Editing has begun/)).toBeChecked()
  await expect(page.getByRole('button', { name: /^Undo the/ })).toBeHidden()
  expect(said).toEqual([])
})

more('cards in two readers are copied one after the other, the most endangered first', async ({ page, request }) => {
  await post(request, `/bench/${await deviceId(request, 'Second reader')}/insert`, { card: 'Heron A' })
  await page.goto(`/p/${production}/copies`)
  await page.getByRole('link', { name: 'All cards at once' }).click()
  await expect(heading(page)).toContainText('2 cards,')
  const order = page.getByRole('list', { name: 'Order of the cards' }).getByRole('listitem')
  await expect(order.nth(0)).toContainText('no proved copy of it, and 1 thing wrong with it')
  await expect(order.nth(1)).toContainText('one proved copy')
  await expectAccessible(page, 'all cards at once')
  await page.getByRole('button', { name: 'Copy all 2 cards, and prove them' }).click()
  await expect(heading(page)).toContainText('No card of this production that lies in a reader needs a copy.', {
    timeout: 90_000,
  })
  // The rule for the tired: one state fills the screen, and it is the worst one.
  await page.getByLabel(/^Scan and copy cards by themselves/).click()
  await page.getByRole('link', { name: /^The big screen/ }).click()
  await expect(heading(page)).toHaveText('Something is wrong: do not format')
  await expect(page.getByText('1 thing is wrong with it')).toBeVisible()
  await expectAccessible(page, 'the big screen')
  await page.getByRole('link', { name: 'Back to Yendra' }).click()
  await page.getByLabel(/^Scan and copy cards by themselves/).click()
  await expect(page.getByRole('link', { name: /^The big screen/ })).toBeHidden()
  await post(request, `/bench/${await deviceId(request, 'Second reader')}/eject`)
})

more(
  'what no browser plays gets a preview, which can be taken away again; sound has its loudness',
  async ({ page, request }) => {
    // A captured tape: MPEG-2 in its program stream, and a recorder's sound beside it.
    debian('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=720x576:r=25:d=2', '-f', 'lavfi', '-i', 'sine=d=2'],
      ...['-c:v', 'mpeg2video', '-c:a', 'mp2', '-f', 'avi', join(root, 'tape 1.avi')],
    ])
    debian('ffmpeg', ['-v', 'error', '-f', 'lavfi', '-i', 'sine=d=3', join(root, 'voice.wav')])
    const { body } = await post(request, '/readers', { name: 'Tape folder', path: root, sure: true })
    await scan(request, String(body?.id), 'Tape 1')

    await page.setViewportSize({ width: 390, height: 844 })
    await page.goto(`/p/${production}/cards/review`)
    await downTo(page, 'tape 1.avi')
    await page.getByRole('button', { name: 'Make a preview' }).click()
    const film = page.locator('video')
    await expect.poll(() => film.evaluate((one: HTMLVideoElement) => one.duration)).toBeCloseTo(2, 0)
    await expect(page.getByText('A preview of the card in Tape folder')).toBeVisible()
    await page.getByRole('button', { name: 'Remove previews' }).click()
    await expect(page.getByRole('button', { name: 'Make a preview' })).toBeVisible()

    await downTo(page, 'voice.wav')
    await expect(page.getByText('Sound, without a picture')).toBeVisible()
    await expect(page.locator('section[aria-label^="Watching"] svg path').first()).toBeVisible()
    const wider = await page.evaluate(() => document.documentElement.scrollWidth - document.documentElement.clientWidth)
    expect(wider).toBeLessThanOrEqual(0)
    await expectAccessible(page, 'the review on a phone', 'day')
  },
)

more('a take in two files is watched and cut as one', async ({ page, request }) => {
  for (const [at, name] of ['GX010061.MP4', 'GX020061.MP4'].entries())
    debian('ffmpeg', [
      ...['-v', 'error', '-f', 'lavfi', '-i', `testsrc2=s=320x180:r=25:d=1`, '-c:v', 'libx264', '-pix_fmt', 'yuv420p'],
      ...['-metadata', `creation_time=2026-11-15T10:00:0${at}Z`, join(card, name)],
    ])
  const { body } = await post(request, '/readers', { name: 'Split folder', path: card, sure: true })
  await scan(request, String(body?.id), 'Split')
  await page.goto(`/p/${production}/cards/review`)
  await downTo(page, 'GX010061.MP4')
  await expect(current(page)).toContainText('2 s, 2 files')
  const film = (name: string) => page.getByLabel(`Film of ${name}`)
  await expect(film('GX010061.MP4')).toBeVisible()
  // Over the seam by frames, in and out on either side of it.
  await page.keyboard.press('Shift+ArrowRight')
  await expect(film('GX020061.MP4')).toBeVisible()
  await page.keyboard.press('ArrowLeft')
  await expect(clock(page)).toHaveText('00:00:00:24')
  await page.keyboard.press('i')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('ArrowRight')
  await page.keyboard.press('o')
  await page.keyboard.press('k')
  await expect(page.getByRole('list', { name: 'Ranges' })).toContainText('00:00:00:24 – 00:00:01:01')
  // Played, it goes on in the next file by itself.
  await page.keyboard.press('Shift+ArrowLeft')
  await expect(film('GX010061.MP4')).toBeVisible()
  await page.keyboard.press('Space')
  await expect(film('GX020061.MP4')).toBeVisible()
  await expect.poll(() => film('GX020061.MP4').evaluate((one: HTMLVideoElement) => one.ended)).toBe(true)
  const { rows } = (await (await request.get(`/api/productions/${production}/review?limit=200`)).json()) as {
    rows: ReviewClip[]
  }
  expect(rows.find((clip) => clip.name === 'GX010061.MP4')?.review).toMatchObject({
    verdict: 'keep',
    ranges: [{ from: 24, to: 27 }],
  })
})
