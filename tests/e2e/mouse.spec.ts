import { existsSync, readdirSync, readFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page } from '@playwright/test'
import { cardFolder, complaints, debian, volumeFolder, production } from './bench'
import { more, ownHouse, test } from './house'
import { args } from '../args'

ownHouse()

const FOLDER = 'Steam-bending ribs'
const station = (page: Page, name: string) =>
  page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: new RegExp(name) })

test.describe.configure({ mode: 'serial' })

test('the overview names the card that waits, and leads to it', async ({ page }) => {
  const said = complaints(page)
  await page.goto('/')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('need you')
  const item = page.getByRole('region', { name: 'What needs you' }).getByRole('link').first()
  await expect(item).toContainText('Take in the card in the reader.')
  await expect(item).toContainText('Steam-bending ribs')
  await item.click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('“Curlew A” is in the reader')
  expect(said).toEqual([])
})

test('station 2 shows the clips of the card with their pictures', async ({ page }) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await page.getByRole('button', { name: 'Scan the card' }).click()
  const row = page.getByRole('row', { name: /CURL0041\.MP4/ })
  await expect(row).toContainText('3840×2160')
  // Source: ffprobe of Debian's ffmpeg on the card itself.
  const frames = debian('ffprobe', [
    ...args('-v error -select_streams v -count_frames -show_entries stream=nb_read_frames -of csv=p=0'),
    join(cardFolder('Curlew A'), 'DCIM/100CURLW/CURL0041.MP4'),
  ]).trim()
  await expect(row).toContainText(`${frames} frames`)
  await expect(page.locator('[data-clip]')).toHaveCount(3)
  await expect(page.locator('[data-finding="gap"]')).toContainText('CURL0042 to CURL0044')
  await page.getByRole('button', { name: 'Deleted in the camera' }).click()
  await expect(page.locator('[data-finding="gap"]')).toContainText('Deleted in the camera.')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('1 problem settled by you, nothing else wrong')
  await expect
    .poll(() => page.getByAltText('A frame of CURL0041.MP4').evaluate((image: HTMLImageElement) => image.naturalWidth))
    .toBeGreaterThan(100)
  // Which card it is, guessed from its name and confirmed by a press.
  await expect(page.getByText('Is it the card Curlew A, filmed by Curlew?')).toBeVisible()
  await page.getByRole('button', { name: 'Yes, it is' }).click()
  await expect(page.getByText('Filmed by Curlew, on the card Curlew A.')).toBeVisible()
})

test('station 3 copies to two drives, proves it, and clears the card only after a clip was played', async ({
  page,
}) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Copies').click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Not yet')
  await page.getByRole('button', { name: 'Copy to Slipway and Tide 1, and prove it' }).click()
  await expect(page.locator('[data-task="copy"]')).toContainText('All 7 files proved on Slipway and Tide 1', {
    timeout: 120_000,
  })
  await expect(page.locator('[data-volume="Slipway"]')).toHaveAttribute('data-mark', '2')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('no clip has been played')
  await page.locator('[data-volume="Tide 1"]').getByRole('button', { name: 'Play from it' }).click()
  await expect(page.getByText('Written down: played from Tide 1.')).toBeVisible({ timeout: 90_000 })
  await page.keyboard.press('Escape')
  await expect(page.locator('[data-volume="Tide 1"]')).toHaveAttribute('data-mark', '3')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Yes: this card may be formatted')
  const atDesk = page.getByRole('switch', { name: 'I am at my own desk now' })
  // Within the press, before a timer or the server is asked: a hand that sees nothing happen presses again.
  const pressed = () =>
    atDesk.evaluate(async (it: HTMLElement) => {
      it.click()
      await Promise.resolve()
      return it.ariaChecked
    })
  // Nor does anybody wait for the server on the way to another page.
  let answer = () => undefined as unknown
  const held = new Promise((resolve) => (answer = () => resolve(undefined)))
  await page.route('**/api/settings', (route) => held.then(() => route.continue()))
  expect(await pressed()).toBe('false')
  await station(page, 'Cards').click()
  await expect(page.getByRole('row', { name: /CURL0041\.MP4/ })).toBeVisible()
  answer()
  await station(page, 'Copies').click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('you are away')
  expect(await pressed()).toBe('true')
  await expect(page.getByRole('button', { name: /I formatted it/ })).toBeVisible()
})

test('a stricter rule says what it changes before it holds, and takes the yes back at once', async ({ page }) => {
  await page.goto('/locker/rules')
  await page.getByRole('button', { name: 'Make another of At home only' }).click()
  const sheet = page.getByRole('dialog')
  await sheet.getByLabel('Name', { exact: true }).fill('For the sailing club')
  await sheet.getByLabel('Verified copies').fill('1')
  await expect(sheet).toContainText('The number of verified copies must be at least 2.')
  await sheet.getByLabel('Verified copies').fill('3')
  await sheet.getByRole('button', { name: 'Add the rule' }).click()
  await expect(page.getByRole('list', { name: 'Rules' })).toContainText('Three verified copies on two drives')
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Copies').click()
  const heading = page.getByRole('heading', { level: 1 })
  await expect(heading).toContainText('Yes: this card may be formatted')
  const choose = async (name: string) => {
    await page.getByLabel('Rule of this production').click()
    await page.getByRole('option', { name }).click()
  }
  await choose('For the sailing club')
  await expect(page.getByText('With it 1 of 1 card would turn to no: “Curlew A”.')).toBeVisible()
  await expect(heading).toContainText('Yes: this card may be formatted')
  // The check of card and drives is held back: the yes of before goes all the same.
  await page.route(/\/productions\/[^/]+\/copies(\?.*)?$/, () => undefined)
  await page.getByRole('button', { name: 'Use this rule here' }).click()
  await expect(heading).toContainText('three are needed', { timeout: 8_000 })
  await page.unrouteAll({ behavior: 'ignoreErrors' })
  // A format against the answer asks why, and the chart tells it.
  await page.getByRole('button', { name: 'The card is formatted already …' }).click()
  const write = page.getByRole('button', { name: 'It is formatted: write it down against the answer' })
  await expect(write).toBeDisabled()
  await page.getByLabel('Why it was formatted all the same').fill('The camera had no other card')
  await write.click()
  await expect(page.getByText('Why: The camera had no other card')).toBeVisible()
  await page.getByRole('link', { name: 'The copy chart of all loads, for printing' }).click()
  await expect(page.locator('[data-load="Curlew A"]')).toContainText('against the answer: The camera had no other card')
  await page.goBack()
  await page.getByRole('button', { name: 'It is not formatted: take that back' }).click()
  await choose('At home only (as usual)')
  await expect(page.getByText('It asks for less than now.')).toBeVisible()
  await page.getByRole('button', { name: 'Use this rule here' }).click()
  await expect(heading).toContainText('Yes: this card may be formatted')
})

test('what is wrong with a clip takes the yes back until somebody settles it', async ({ page }) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Copies').click()
  const heading = page.getByRole('heading', { level: 1 })
  await page.locator('[data-volume="Slipway"]').getByRole('button', { name: 'Play from it' }).click()
  await page.getByRole('button', { name: 'Something is wrong with it …' }).click()
  await page.getByLabel('What is wrong with it').fill('The picture breaks up')
  await page.getByRole('button', { name: 'Write down that something is wrong with it' }).click()
  await expect(heading).toContainText('(The picture breaks up)')
  const found = page.getByRole('region', { name: 'Found wrong while playing' })
  await expect(found).toContainText('read again since, it is what was read from the card')
  await found.getByRole('button', { name: 'Play it from Tide 1' }).click()
  await expect(page.getByRole('dialog', { name: 'Play from Tide 1' })).toBeVisible()
  await page.keyboard.press('Escape')
  await found.getByRole('button', { name: 'It plays as it should after all' }).click()
  await expect(found).toHaveCount(0)
  await expect(heading).toContainText('Yes: this card may be formatted')
})

test('the two copies equal the card, and xxhsum accepts the list beside each', () => {
  for (const drive of ['Slipway', 'Tide 1']) {
    const cards = join(volumeFolder(drive), FOLDER, 'Cards')
    // Source: diff of Debian's diffutils, xxhsum of Debian's xxhash.
    expect(debian('diff', ['-r', cardFolder('Curlew A'), join(cards, 'Curlew A')])).toBe('')
    expect(debian('xxhsum', ['--quiet', '-c', 'Curlew A.xxh64'], cards)).not.toContain('FAILED')
    expect(readFileSync(join(cards, 'Curlew A.xxh64'), 'utf8').trim().split('\n')).toHaveLength(7)
    expect(
      existsSync(join(volumeFolder(drive), '.yendra/parts')) &&
        readdirSync(join(volumeFolder(drive), '.yendra/parts')).length > 0,
    ).toBe(false)
  }
})

more('station 4 makes proxies that equal their originals frame by frame', async ({ page }) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Proxies').click()
  const make = page.getByRole('button', { name: /Make 3 proxies/ })
  await expect(make).toContainText(/at most \d/)
  await make.click()
  await expect(page.locator('[data-proxy][data-state="equal"]')).toHaveCount(3, { timeout: 120_000 })
  await expect(page.getByRole('heading', { level: 1 })).toContainText('All 3 proxies equal their originals')
  // What ended before one's eyes is not told again elsewhere.
  await station(page, 'Exports').click()
  await expect(page.getByTestId('crop-window')).toBeVisible()
  await expect(page.getByRole('region', { name: 'Work' })).toHaveCount(0)
  const probe = (path: string) =>
    debian('ffprobe', [
      ...args(
        '-v error -select_streams v -count_frames -show_entries stream=width,height,r_frame_rate,nb_read_frames,duration -of csv=p=0',
      ),
      path,
    ]).trim()
  for (const clip of ['CURL0041', 'CURL0042', 'CURL0044']) {
    // Source: ffprobe of Debian's ffmpeg, counting decoded frames of both files.
    const original = probe(join(cardFolder('Curlew A'), `DCIM/100CURLW/${clip}.MP4`))
    const made = probe(join(volumeFolder('Slipway'), FOLDER, `Proxies/Curlew A/DCIM/100CURLW/${clip}.mp4`))
    expect(made).toBe(original.replace('3840,2160', '1920,1080'))
  }
})

more('station 5 shows volumes with headroom, and the bytes of the production by class', async ({ page }) => {
  const said = complaints(page)
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Storage').click()
  const row = page.locator('[data-volume="Slipway"]')
  await expect(row).toContainText('1.00 TB')
  await expect(row).toContainText('150 GB')
  await expect(page.locator('[data-class="originals"]')).toContainText('MB')
  await expect(page.locator('[data-class="generated"]')).not.toHaveText('0 B')
  await expect(page.getByRole('img', { name: /^Slipway: \d+ % used/ })).toBeVisible()
  await expect(page.locator('[data-volume="Neap"]')).toContainText('not connected')
  // The fullest first, and as a table.
  const first = page.locator('[data-volume]').first()
  await expect(first).toContainText('Slipway')
  await page.getByRole('button', { name: 'Used' }).click()
  await page.getByRole('button', { name: 'Used' }).click()
  await expect(first).toContainText('Ebb')
  await page.getByRole('button', { name: 'Save as CSV' }).click()
  const [saved] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('menuitem', { name: /^As a table/ }).click(),
  ])
  const lines = readFileSync(await saved.path(), 'utf8').split('\r\n')
  expect(lines[0]).toBe('Volume,Kept at,Capacity,Used,Free,Kept free,Can be planned')
  expect(lines[1]).toMatch(/^Ebb,house,4000000000000,/)
  expect(said).toEqual([])
})

more('station 6 cuts a tall file from a dragged window, and the real file passes its check', async ({ page }) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Exports').click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('every pixel is real')
  const crop = page.getByTestId('crop-window')
  const figures = page.getByLabel('Figures of this framing')
  await expect(figures).toContainText('1216×2160 at 1312, 0')
  await page.getByRole('slider', { name: 'Closer' }).press('PageUp')
  await expect(page.getByRole('heading', { level: 1 })).toContainText('invents pixels')
  await expect(figures).toContainText('810×1440')
  await page.getByRole('slider', { name: 'Closer' }).press('Home')
  await expect(figures).toContainText('1216×2160 at 1312, 0')
  const box = await crop.boundingBox()
  if (!box) throw new Error('no crop window')
  const middle = { x: box.x + box.width / 2, y: box.y + box.height / 2 }
  await page.mouse.move(middle.x, middle.y)
  await page.mouse.down()
  await page.mouse.move(middle.x + 60, middle.y + 5, { steps: 6 })
  await page.mouse.up()
  const window = /(\d+)×(\d+) at (\d+), (\d+)/
    .exec(await figures.innerText())
    ?.slice(1)
    .map(Number)
  if (!window) throw new Error('no window')
  expect(window[2]).toBeGreaterThan(1400)
  await page.getByRole('button', { name: 'Render it' }).click()
  const made = page.locator('[data-deliverable="Tall short"]')
  await expect(made).toHaveAttribute('data-pass', 'true', { timeout: 120_000 })
  await expect(made).toContainText(/passes all 2\d checks/)
  const file = join(volumeFolder('Slipway'), FOLDER, 'Output/CURL0041 tall short.mp4')
  // Source: ffprobe of Debian's ffmpeg; level limits in ITU-T H.264 table A-1.
  const stream = debian('ffprobe', [
    ...args(
      '-v error -select_streams v -show_entries stream=codec_name,profile,width,height,pix_fmt,level,color_space,r_frame_rate,nb_frames -of json',
    ),
    file,
  ])
  expect((JSON.parse(stream) as { streams: unknown[] }).streams[0]).toEqual({
    codec_name: 'h264',
    profile: 'High',
    width: 1080,
    height: 1920,
    pix_fmt: 'yuv420p',
    level: 40,
    color_space: 'bt709',
    r_frame_rate: '25/1',
    nb_frames: '75',
  })
  // The picture really is that window: the same window cut by ffmpeg alone differs by coding noise only.
  const psnr = debian('ffmpeg', [
    ...args('-v info -nostats -i'),
    file,
    '-i',
    join(cardFolder('Curlew A'), 'DCIM/100CURLW/CURL0041.MP4'),
    '-filter_complex',
    `[1:v]crop=${window[0]}:${window[1]}:${window[2]}:${window[3]},scale=1080:1920,setsar=1[a];[0:v][a]psnr=stats_file=-`,
    ...args('-frames:v 5 -f null -'),
  ])
  const worst = Math.min(...[...psnr.matchAll(/psnr_avg:([\d.]+)/g)].map((match) => Number(match[1])))
  expect(worst).toBeGreaterThan(28)
})

more('station 7 writes a bag that sha256sum accepts', async ({ page }) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Shelf').click()
  await page.getByRole('button', { name: 'Pack it as a bag' }).click()
  await expect(page.locator('[data-bag]')).toContainText('read back, equal', { timeout: 120_000 })
  const bag = join(volumeFolder('Tide 1'), FOLDER, 'Shelf/CURL0041 tall short')
  // Source: sha256sum of Debian's coreutils; file names and tags in RFC 8493 sections 2.1 and 2.2.
  expect(debian('sha256sum', ['--strict', '-c', 'manifest-sha256.txt'], bag)).toContain(
    'data/CURL0041 tall short.mp4: OK',
  )
  expect(debian('sha256sum', ['--strict', '-c', 'tagmanifest-sha256.txt'], bag)).toContain('bagit.txt: OK')
  expect(readFileSync(join(bag, 'bagit.txt'), 'utf8')).toBe('BagIt-Version: 1.0\nTag-File-Character-Encoding: UTF-8\n')
  const bytes = debian('find', ['data', '-type', 'f', '-printf', '%s\n'], bag).trim().split('\n').map(Number)
  expect(readFileSync(join(bag, 'bag-info.txt'), 'utf8')).toContain(
    `Payload-Oxum: ${bytes.reduce((sum, one) => sum + one, 0)}.${bytes.length}\n`,
  )
  await expect(page.getByRole('navigation', { name: 'Stations' }).getByRole('link', { name: /in order/ })).toHaveCount(
    7,
  )
})

more('a formatted card is written down, and its clips coming back are said loudly', async ({ page }) => {
  await page.goto('/')
  await production(page, 'Steam-bending ribs').click()
  await station(page, 'Copies').click()
  await page.getByRole('button', { name: /I formatted it/ }).click()
  await expect(page.getByRole('alertdialog')).toContainText('They are still here')
  await page.getByRole('button', { name: 'Write down that I formatted it' }).click()
  // Everything is still on it: that is asked about at once.
  await expect(page.getByRole('heading', { level: 1 })).toContainText(
    'Was this card formatted? Everything is still on it',
  )
  await station(page, 'Cards').click()
  await page.getByRole('button', { name: 'Scan again' }).click()
  await expect(page.locator('[data-finding="returned"]')).toContainText('its clips are still on it')
  await station(page, 'Copies').click()
  await page.getByRole('button', { name: 'It is not formatted: take that back' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Yes: this card may be formatted')
})
