import { readFileSync } from 'node:fs'
import { expect, type APIRequestContext, type Page } from '@playwright/test'
import type { PlanBody } from '../../contract/shoot'
import { choose, complaints, debian, post, productionId, saved, production } from './bench'
import { more, ownHouse, test } from './house'
import { heading, tabTo } from './keys'
import { args } from '../args'

ownHouse()

test.describe.configure({ mode: 'serial' })

const camera = (page: Page, name: string) => page.getByRole('region', { name, exact: true })
const cardsOf = (page: Page, name: string) => page.getByRole('button', { name: `Cards of ${name}:` })

/** Bytes of a picture as a program of Debian decodes it: red, green, blue and opacity of each pixel. */
function decoded(path: string): Buffer {
  const raw = `${path}.rgba`
  debian('ffmpeg', ['-v', 'error', '-y', '-i', path, '-f', 'rawvideo', '-pix_fmt', 'rgba', raw])
  return readFileSync(raw)
}

/** The plan of the demo, before anybody mended it. */
let wrongPlan: Pick<PlanBody, 'takes' | 'cameras'>

async function planNow(request: APIRequestContext, id: string): Promise<PlanBody> {
  const { version, takes, cameras } = (await (await request.get(`/api/productions/${id}/plan`)).json()) as PlanBody
  return { version, takes, cameras }
}

test('a day with the wrong cards is mended by mouse', async ({ page, request }) => {
  const said = complaints(page)
  const id = await productionId(request, 'Launch day')
  wrongPlan = await planNow(request, id)
  await page.goto(`/p/${id}/shoot`)
  await expect(heading(page)).toHaveText('One card is too slow and two more cards are needed.')
  // Common practice, no source: UHD of 12 bit at 25 frames is 311.04 MB/s. From memory: E450 is the class above E300.
  await expect(
    page.getByText('Reed 1 is too slow for Heron: it writes 90.0 MB/s, and 311 MB/s need E450.'),
  ).toBeVisible()

  // Heron by hand: the slow card out, another of the gear book in.
  await cardsOf(page, 'Heron').click()
  const sheet = page.getByRole('dialog', { name: 'Cards of Heron' })
  // What is changed is kept only when the page was scrolled.
  let keep = () => {}
  const mayKeep = new Promise<void>((go) => (keep = go))
  await page.route(`**/api/productions/${id}/plan`, (route) => mayKeep.then(() => route.continue()))
  await sheet.getByText('Reed 1', { exact: true }).click()
  await sheet.getByText('Heron 2', { exact: true }).click()
  await sheet.getByRole('button', { name: 'Close' }).click()
  await expect(heading(page)).toHaveText('Two more cards are needed.')
  // What one looks at stays where it is when the line of the stations is told of it.
  const placeOf = async () => Math.round((await camera(page, 'Plover').boundingBox())?.y ?? NaN)
  const atStations = page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /Shoot/ })
  await camera(page, 'Plover').scrollIntoViewIfNeeded()
  const place = await placeOf()
  expect(await page.evaluate(() => window.scrollY)).toBeGreaterThan(0)
  await expect(atStations).toContainText('too slow')
  keep()
  await expect(atStations).not.toContainText('too slow')
  expect(await placeOf()).toBe(place)
  await page.unroute(`**/api/productions/${id}/plan`)
  // Curlew by one press.
  await page.getByRole('button', { name: 'Choose cards that fit' }).click()
  await expect(heading(page)).toHaveText(/^Every take has its card: 6 cards for 270 GB/)
  await expect(cardsOf(page, 'Curlew')).toHaveAccessibleName(/Curlew B.*113 GB of 128 GB/)

  // Everything moves while it is typed, and the day says what it still allows.
  const left = page.getByTestId('left-Curlew')
  await expect(left).toContainText('more in UHD 25p')
  const before = await left.textContent()
  await camera(page, 'Curlew').getByLabel('Takes, Curlew, row 1').fill('7')
  await expect(left).not.toHaveText(before ?? '')
  await camera(page, 'Curlew').getByLabel('Length of a take, Curlew, row 1').fill('soon')
  await expect(page.getByText('Write it as 12 min, 1h20 or 2:30.')).toBeVisible()
  await camera(page, 'Curlew').getByLabel('Length of a take, Curlew, row 1').fill('25 min')
  await camera(page, 'Curlew').getByLabel('Takes, Curlew, row 1').fill('6')
  await expect(left).toHaveText(before ?? '')
  await camera(page, 'Curlew').getByRole('button', { name: 'Which mode fits the day?' }).click()
  const modes = page.getByRole('dialog', { name: 'Modes of Curlew' })
  // Which cards are in it hangs on what other productions count on; that fits or does not is said of each mode.
  await expect(modes.getByRole('listitem').filter({ hasText: 'UHD 50p, 10 bit' })).toContainText(
    /too long for the cards|fits, .* to spare/,
  )
  await expect(modes.getByRole('listitem').filter({ hasText: 'HD 25p' }).last()).toContainText('fits')
  await page.keyboard.press('Escape')

  // It is kept: another look shows the same, and the line has no worry left.
  await page.reload()
  await expect(heading(page)).toHaveText(/^Every take has its card/)
  await expect(
    page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /Shoot/ }),
  ).not.toContainText('card too')

  // What is printed: dark on white, no buttons, the cards by name.
  for (const [paper, words] of [
    ['carry', /Heron 2.*spare for Heron/s],
    ['shots', /Down the slip, pass 2 of 3.*From the water/s],
  ] as const) {
    await page.goto(`/print/${id}/${paper}`)
    await page.emulateMedia({ media: 'print' })
    await expect(page.getByRole('main')).toContainText(words)
    await expect(page.getByRole('button')).toHaveCount(0)
    expect((await page.pdf({ format: 'A4' })).toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
    await page.emulateMedia({ media: 'screen' })
  }
  expect(said).toEqual([])
})

more('guides leave as PNG and SVG that other programs read', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Launch day')}/shoot/framing`)
  await expect(heading(page)).toContainText('All of them can be cut without inventing pixels')
  const png = await saved(page, page.getByRole('button', { name: 'Guides as PNG' }), 'guides.png')
  // Source: ffprobe and the PNG decoder of Debian's ffmpeg.
  const shown = debian('ffprobe', [...args('-v error -show_entries stream=width,height,pix_fmt -of csv=p=0'), png])
  expect(shown.trim()).toBe('3840,2160,rgba')
  const pixels = decoded(png)
  const opacity = (x: number, y: number) => pixels[(y * 3840 + x) * 4 + 3]
  // The whole frame is the first line; tall 9:16 of UHD is 1214 wide in the middle, at 1312, its lines 4 pixels wide
  // and dashed.
  expect([opacity(0, 0), opacity(3839, 2159), opacity(1920, 1080)]).toEqual([255, 255, 0])
  const column = (x: number) =>
    Array.from({ length: 2160 }, (_, y) => opacity(x, y)).filter((value) => value === 255).length
  expect(column(1311)).toBeLessThan(100)
  expect(column(1312)).toBeGreaterThan(1000)
  expect(column(1315)).toBeGreaterThan(1000)
  expect(column(1316)).toBeLessThan(100)

  const svg = await saved(page, page.getByRole('button', { name: 'As SVG' }), 'guides.svg')
  const text = readFileSync(svg, 'utf8')
  expect(text).toMatch(/^<svg [^>]*width="3840" height="2160" viewBox="0 0 3840 2160"/)
  // Source: the browser's own renderer draws the file over the same pixels as the PNG has.
  const drawn = await page.evaluate(async (source) => {
    const image = new Image()
    image.src = URL.createObjectURL(new Blob([source], { type: 'image/svg+xml' }))
    await image.decode()
    const canvas = new OffscreenCanvas(image.naturalWidth, image.naturalHeight)
    const pen = canvas.getContext('2d')
    pen?.drawImage(image, 0, 0)
    const alpha = (x: number, y: number) => pen?.getImageData(x, y, 1, 1).data[3]
    return [image.naturalWidth, image.naturalHeight, alpha(0, 0), alpha(1313, 20), alpha(1310, 1000), alpha(1920, 1080)]
  }, text)
  expect(drawn).toEqual([3840, 2160, 255, opacity(1313, 20), 0, 0])

  // A frame that is too small says so before anything is exported.
  await choose(page, page.getByLabel('Recorded frame'), '2704×1520, Plover')
  await expect(page.getByText('Pixels are invented').first()).toBeVisible()
})

more('the same day is mended by keyboard alone', async ({ page, request }) => {
  const id = await productionId(request, 'Launch day')
  const { version } = await planNow(request, id)
  expect((await request.put(`/api/productions/${id}/plan`, { data: { ...wrongPlan, version } })).status()).toBe(200)
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  await page.goto(`/p/${id}/copies`)
  await expect(heading(page)).toBeVisible()
  await page.keyboard.press('1')
  await expect(heading(page)).toHaveText('One card is too slow and two more cards are needed.')
  await tabTo(page, /^Cards of Heron/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('dialog', { name: 'Cards of Heron' })).toBeVisible()
  for (const card of [/^Reed 1/, /^Heron 2/]) {
    await tabTo(page, card)
    await page.keyboard.press('Space')
  }
  await page.keyboard.press('Escape')
  await expect(heading(page)).toHaveText('Two more cards are needed.')
  await tabTo(page, /^Choose cards that fit/)
  await page.keyboard.press('Enter')
  await expect(heading(page)).toHaveText(/^Every take has its card/)
  await expect(page.getByTestId('left-Curlew')).toContainText('more in UHD 25p')

  // Both lists to the printer's page and back.
  await tabTo(page, /^Carry list/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Print the list' })).toBeVisible()
  await tabTo(page, /^Print the list/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('main')).toContainText('spare for Heron')
  await tabTo(page, /^Back to the carry list/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('link', { name: 'Print the list' })).toBeVisible()
  await tabTo(page, /^Shot list/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('list', { name: 'Shots' })).toBeVisible()
  await tabTo(page, /^Take it along/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('menuitem', { name: /^On paper/ })).toBeFocused()
  await page.keyboard.press('Enter')
  await expect(page.getByRole('main')).toContainText('Down the slip, pass 2 of 3')
  await tabTo(page, /^Back to the shot list/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('list', { name: 'Shots' })).toBeVisible()

  // A tick on a screen of a phone's size, and the guides.
  await page.setViewportSize({ width: 390, height: 844 })
  await tabTo(page, /^\d+\s*First sail up/)
  await page.keyboard.press('Space')
  await expect(page.getByRole('checkbox', { name: /First sail up/ })).toBeChecked()
  await page.setViewportSize({ width: 1280, height: 800 })
  await tabTo(page, /^Framing/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Guides as PNG' })).toBeVisible()
  await tabTo(page, /^Guides as PNG/)
  const [download] = await Promise.all([page.waitForEvent('download'), page.keyboard.press('Enter')])
  expect(download.suggestedFilename()).toBe('guides 3840x2160.png')
})

test('the day, the rates and the locker are worked by keyboard alone', async ({ page, request }) => {
  const said = complaints(page)
  const id = await productionId(request, 'Launch day')
  await page.goto(`/p/${id}/cards`)
  await expect(heading(page)).toBeVisible()
  await page.keyboard.press('1')
  await expect(heading(page)).toHaveText(/^Every take has its card/)

  // A shot is lifted with Space and moved with the arrows.
  await tabTo(page, /^Shot list/)
  await page.keyboard.press('Enter')
  const rows = page.getByRole('list', { name: 'Shots' }).getByRole('listitem')
  await expect(rows.first()).toBeVisible()
  const first = (await rows.first().getByRole('button', { name: /^Move/ }).getAttribute('aria-label')) ?? ''
  await tabTo(page, new RegExp(`^${first}`))
  await page.keyboard.press('Space')
  await expect(page.getByRole('status').filter({ hasText: 'is lifted from place 1' })).toBeAttached()
  // The rows are measured a moment after one is lifted; a key before that moves nothing.
  await expect(async () => {
    await page.keyboard.press('ArrowDown')
    await expect(page.getByRole('status').filter({ hasText: 'is moved to place 2' })).toBeAttached({ timeout: 3000 })
  }).toPass()
  await page.keyboard.press('Space')
  await expect(rows.nth(1).getByRole('button', { name: first })).toBeVisible()
  await page.keyboard.press('Tab')
  // One key takes it back, another does it again, and the notice says which.
  const changed = page.getByRole('status', { name: 'What was changed' })
  await page.keyboard.press('Control+z')
  await expect(rows.first().getByRole('button', { name: first })).toBeVisible()
  await expect(changed).toContainText(/^Taken back: “.+” was moved\./)
  await page.keyboard.press('Control+Shift+z')
  await expect(rows.nth(1).getByRole('button', { name: first })).toBeVisible()

  // The day: what goes over midnight is said, and gone when it begins earlier.
  await tabTo(page, /^The day/)
  await page.keyboard.press('Enter')
  await expect(page.getByText('“Fire on the hard” goes on past midnight')).toBeVisible()
  await tabTo(page, /^Time of call 5/)
  await page.keyboard.type('22:00')
  await expect(page.getByText('goes on past midnight')).toHaveCount(0)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('button', { name: 'Save this day' })).toBeDisabled()

  // A rate that shares no timeline.
  await tabTo(page, /^Rates and shutter/)
  await page.keyboard.press('Enter')
  await expect(heading(page)).toHaveText('25 and 100 share a timeline of 25.')
  await tabTo(page, /^Another rate/)
  await page.keyboard.type('30')
  await expect(heading(page)).toContainText('share no timeline')

  // A card of one's own, written into the locker by way of the palette, put away and brought back.
  await page.keyboard.press('Control+k')
  await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
  await page.keyboard.type('locker')
  await page.keyboard.press('Enter')
  await expect(page.getByRole('navigation', { name: 'Locker' })).toBeVisible()
  await tabTo(page, /^Cards/)
  await page.keyboard.press('Enter')
  await tabTo(page, /^Add a card/)
  await page.keyboard.press('Enter')
  await expect(page.getByLabel('Name', { exact: true })).toBeFocused()
  await page.keyboard.type('Sandpiper 1')
  await tabTo(page, /^Holds/)
  await page.keyboard.press('Control+a')
  await page.keyboard.type('256 GB')
  await page.keyboard.press('Enter')
  const row = page.locator('[data-card="Sandpiper 1"]')
  await expect(row).toContainText('256 GB')
  await tabTo(page, /^Put Sandpiper 1 away/)
  await page.keyboard.press('Enter')
  await expect(page.getByRole('alertdialog')).toContainText('Nothing else uses it.')
  await tabTo(page, /^Put it away/)
  await page.keyboard.press('Enter')
  await expect(row).toContainText('put away')
  await tabTo(page, /^Bring Sandpiper 1 back/)
  await page.keyboard.press('Enter')
  await expect(row).toContainText('empty')
  expect(said).toEqual([])
})

more(
  'what was measured is taken over, and a production is renamed, put away and brought back',
  async ({ page, request }) => {
    const id = await productionId(request, 'Sail loft')
    await page.goto(`/p/${id}/shoot/measured`)
    // The loads that agree are 109 Mb/s, with the demo’s card or without; one is far off.
    await expect(heading(page)).toHaveText(/^UHD 25p of Curlew takes 8\.\d % more than it is planned with\.$/)
    await expect(page.getByText('far off').first()).toBeVisible()
    await page.getByRole('button', { name: 'Use 109 Mb/s' }).click()
    await expect(heading(page)).toHaveText('The gear book uses the measured figures.')
    await page.getByLabel('Card', { exact: true }).fill('Heron 3')
    await page.getByLabel('Held').fill('512 GB')
    await page.getByLabel('Took').fill('3h')
    await page.getByRole('button', { name: 'Write it down' }).click()
    // Common practice, no source: 512 GB in 3 h is 47.4 MB/s.
    await expect(page.getByText('Heron 3: 512 GB in 3 h, 47.4 MB/s')).toBeVisible()

    // A new production begins with the plan of an earlier one, without the cards that are promised to another day.
    const { body: made } = await post(request, '/productions', { title: 'Second launch' })
    await page.goto(`/p/${String(made?.id)}/shoot`)
    await choose(page, page.getByLabel('Plan of an earlier production'), 'Launch day')
    await page.getByRole('button', { name: 'Copy it' }).click()
    await expect(heading(page)).toContainText('needed')
    await expect(camera(page, 'Heron')).toBeVisible()
    await page.goto(`/p/${id}/shoot`)

    await page.getByRole('button', { name: 'Change Sail loft' }).click()
    const sheet = page.getByRole('dialog')
    await expect(sheet).toContainText('Its folder on every volume stays “Sail loft”')
    await sheet.getByLabel('Title').fill('The sail loft')
    await sheet.getByRole('button', { name: 'Save the change' }).click()
    await expect(page.getByRole('button', { name: 'Change The sail loft' })).toBeVisible()
    await page.getByRole('button', { name: 'Change The sail loft' }).click()
    await page.getByRole('dialog').getByRole('button', { name: 'Put it away' }).click()
    await expect(page.getByRole('link', { name: /The sail loft/ })).toHaveCount(0)
    await page.getByRole('button', { name: '1 production put away' }).click()
    await page.getByRole('button', { name: 'Bring The sail loft back' }).click()
    await expect(production(page, 'The sail loft')).toBeVisible()
  },
)
