import {
  mkdirSync,
  mkdtempSync,
  readFileSync,
  realpathSync,
  renameSync,
  rmSync,
  statSync,
  utimesSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, type APIRequestContext, type Page } from '@playwright/test'
import type { ClipView, ReaderView } from '../../contract/cards'
import type { LoadCopies } from '../../contract/copies'
import type { Page as ListPage } from '../../contract/page'
import { expectAccessible } from './access'
import { choose, debian, post, startTask, taskEnd, volumeIds } from './bench'
import { more, ownHouse, STATE, test } from './house'
import { args } from '../args'

ownHouse()

test.describe.configure({ mode: 'serial' })

const root = realpathSync(mkdtempSync(join(process.env.YENDRA_TEST_DIR ?? tmpdir(), 'yendra-real-')))
const [slot, mudflat, saltern] = [join(root, 'slot'), join(root, 'Mudflat'), join(root, 'Saltern')]
const card = join(slot, 'DCIM/101CURLW')
const mirror = (drive: string) => join(drive, 'Varnishing day/Cards/Curlew B')
const heading = (page: Page) => page.getByRole('heading', { level: 1 })
let production = ''

/** A short clip on the card, made by Debian's ffmpeg. */
function film(name: string): void {
  debian('ffmpeg', [
    ...args('-v error -y -f lavfi -i testsrc2=s=320x180:r=25:d=2 -c:v libx264 -pix_fmt yuv420p -movflags +faststart'),
    // No two clips have the same content, which would be asked about.
    '-metadata',
    `comment=${name}`,
    join(card, name),
  ])
}

/** Writes a file anew with the same size and, to the nanosecond, the same time: `utimes` of a Date would round it. */
function rewriteUnseen(path: string, change: (bytes: Buffer) => void): void {
  const bytes = readFileSync(path)
  const clock = join(root, 'clock')
  writeFileSync(clock, '')
  debian('touch', ['-r', path, clock])
  change(bytes)
  writeFileSync(path, bytes)
  debian('touch', ['-r', clock, path])
}

const copiesOf = async (request: APIRequestContext) => {
  const {
    rows: [load],
  } = (await (await request.get(`/api/productions/${production}/copies`)).json()) as ListPage<LoadCopies>
  if (!load) throw new Error('no load')
  return load
}

/** Copies to both drives and returns the sentence it ended with. */
async function copyAgain(request: APIRequestContext, setAside = false): Promise<string> {
  const volumes = await volumeIds(request, 'Mudflat drive', 'Saltern drive')
  return (
    (
      await taskEnd(
        request,
        await startTask(request, `/loads/${(await copiesOf(request)).loadId}/copies`, { volumeIds: volumes, setAside }),
      )
    ).sentence ?? ''
  )
}

test.beforeAll(() => {
  for (const folder of [card, mudflat, saltern]) mkdirSync(folder, { recursive: true })
  // They lie on one file system, and play three devices.
  const devices = Object.fromEntries([slot, mudflat, saltern].map((folder) => [folder, folder]))
  writeFileSync(join(STATE, 'devices.json'), JSON.stringify(devices))
  film('CURL0001.MP4')
  film('CURL0002.MP4')
  for (const name of ['CURL0001', 'CURL0002']) writeFileSync(join(card, `${name}.XML`), `<clip name="${name}"/>\n`)
})
test.afterAll(() => rmSync(root, { recursive: true, force: true }))

test('a real card in a real folder is named, copied to real drives, played and cleared', async ({ page, request }) => {
  production = String((await post(request, '/productions', { title: 'Varnishing day' })).body?.id)
  await page.goto(`/p/${production}/storage`)
  for (const [name, path] of [
    ['Mudflat drive', mudflat],
    ['Saltern drive', saltern],
  ] as const) {
    await page.getByRole('button', { name: 'Add a volume' }).click()
    const sheet = page.getByRole('dialog', { name: 'Add a volume' })
    await sheet.getByLabel('Folder').fill(path)
    await sheet.getByLabel('Name', { exact: true }).fill(name)
    await sheet.getByLabel('Kept at').fill('workshop')
    await sheet.getByRole('button', { name: 'Add it' }).click()
    await expect(sheet).toHaveCount(0)
    await expect(page.locator(`[data-volume="${name}"]`)).toBeVisible()
  }
  await page.keyboard.press('2')
  await page.getByRole('button', { name: 'Add a reader folder' }).click()
  const sheet = page.getByRole('dialog', { name: 'Add a reader folder' })
  await sheet.getByLabel('Folder').fill(slot)
  await sheet.getByLabel('Name', { exact: true }).fill('left slot')
  await sheet.getByRole('button', { name: 'Add it', exact: true }).click()
  await expect(sheet.getByRole('alert')).toContainText('an ordinary folder with things in it')
  await sheet.getByRole('button', { name: 'Add it all the same' }).click()
  // The bench's own card waits too; it is taken out.
  const bench = (await (await request.get('/api/bench')).json()) as { devices: { id: string; role: string }[] }
  await post(request, `/bench/${bench.devices.find((device) => device.role === 'reader')?.id}/eject`)
  await expect(heading(page)).toContainText('A card is in left slot and has not been scanned')
  await expect(page.getByLabel('Call it')).toHaveValue('Card A')
  await choose(page, page.getByRole('combobox', { name: 'For which production' }), 'Varnishing day')
  await page.getByLabel('Call it').fill('Curlew B')
  await page.getByRole('button', { name: 'Scan the card' }).click()
  await expect(heading(page)).toContainText('“Curlew B”: 2 clips, 4 s: nothing wrong found', { timeout: 120_000 })
  expect(await copyAgain(request)).toContain('All 4 files proved on Mudflat drive and Saltern drive')
  await page.keyboard.press('3')
  await page.locator('[data-volume="Mudflat drive"]').getByRole('button', { name: 'Play from it' }).click()
  await expect(page.getByText('Written down: played from Mudflat drive.')).toBeVisible({ timeout: 90_000 })
  await expectAccessible(page, 'the player')
  await page.keyboard.press('Escape')
  await expect(heading(page)).toContainText('Yes: this card may be formatted')
})

more('a batch of proxies is measured on a few seconds before it is made', async ({ page }) => {
  await page.goto(`/p/${production}/proxies`)
  const make = page.getByRole('button', { name: /Make 2 proxies/ })
  await expect(make).toContainText(/at most \d/)
  await page.getByRole('button', { name: 'Measure a few seconds first' }).click()
  await expect(make).toContainText(/about \d/, { timeout: 120_000 })
  await expect(make).toBeEnabled()
})

more(
  'a clip filmed since the look is noticed by itself, and nothing is cleared before it is copied',
  async ({ page, request }) => {
    await page.goto(`/p/${production}/cards`)
    await expect(heading(page)).toContainText('nothing wrong found')
    film('CURL0003.MP4')
    await expect(heading(page)).toContainText('“Curlew B” has 1 new clip', { timeout: 90_000 })
    expect(await copyAgain(request)).toContain('The card has changed since it was scanned: 1 file new. Scan it again')
    await page.getByRole('button', { name: 'Scan the card' }).click()
    await expect(heading(page)).toContainText('“Curlew B”: 3 clips')
    await page.keyboard.press('3')
    await expect(heading(page)).toContainText('Not yet')
    expect(await copyAgain(request)).toContain('All 5 files proved')
    await expect(heading(page)).toContainText('Yes: this card may be formatted')
    for (const drive of [mudflat, saltern]) {
      // Source: diff of Debian's diffutils, xxhsum of Debian's xxhash.
      expect(debian('diff', ['-r', slot, mirror(drive)])).toBe('')
      expect(
        debian('xxhsum', ['-c', 'Curlew B.xxh64'], join(drive, 'Varnishing day/Cards')).match(/: OK/g),
      ).toHaveLength(5)
    }
  },
)

more(
  'no proof is taken over by a clip that was rewritten, and the copy of the old one is kept',
  async ({ page, request }) => {
    const clip = join(card, 'CURL0002.MP4')
    const { size } = statSync(clip)
    // Same name, same size, other content: as after a format with the counter reset.
    writeFileSync(clip, Buffer.alloc(size, 7))
    utimesSync(clip, new Date(), new Date())
    rmSync(join(card, 'CURL0003.MP4'))
    await page.goto(`/p/${production}/cards`)
    await page.getByRole('button', { name: 'Scan the card' }).click()
    await expect(page.locator('[data-finding="unreadable"]')).toContainText('CURL0002.MP4')
    await expect(page.locator('[data-finding="gone"]')).toContainText('CURL0003.MP4')
    expect((await copiesOf(request)).copies.map((copy) => copy.mark)).toEqual([0, 0])
    await copyAgain(request)
    expect((await copiesOf(request)).copies.map((copy) => copy.filesInConflict)).toEqual([1, 1])
    expect(await copyAgain(request, true)).toContain('All 4 files proved')
    expect(debian('diff', [clip, join(mirror(mudflat), 'DCIM/101CURLW/CURL0002.MP4')])).toBe('')
    expect(debian('find', [join(mudflat, 'Set aside'), '-name', 'CURL0002.MP4', '-size', `${size}c`]).trim()).not.toBe(
      '',
    )
    // Which clip was played before is up to chance; one that was rewritten counts as played no more.
    const { rows } = (await (
      await request.get(`/api/productions/${production}/clips?show=playable&limit=50`)
    ).json()) as ListPage<ClipView>
    const clipId = rows.find(({ name }) => name === 'CURL0001.MP4')?.id
    const { loadId, copies } = await copiesOf(request)
    await post(request, `/loads/${loadId}/spot-plays`, { volumeId: copies[0]?.volumeId, clipId, seconds: 1 })
    expect((await copiesOf(request)).clear.sentence).toContain('wrong and not settled')
    await page.getByRole('button', { name: 'I can do without it' }).click()
    await expect(heading(page)).toContainText('1 problem settled by you, nothing else wrong')
    expect((await copiesOf(request)).clear.clear).toBe(true)
  },
)

test('where clips can be played, one must be named', async ({ request }) => {
  const { loadId, copies } = await copiesOf(request)
  expect(
    await post(request, `/loads/${loadId}/spot-plays`, { volumeId: copies[0]?.volumeId, clipId: null, seconds: 1 }),
  ).toMatchObject({ status: 422, body: { field: 'clipId' } })
})

more('a copy that was moved away or damaged clears nothing', async ({ page, request }) => {
  const { loadId } = await copiesOf(request)
  const said = () => post(request, `/loads/${loadId}/formatted`)
  await page.goto(`/p/${production}/copies`)
  await expect(heading(page)).toContainText('Yes: this card may be formatted')
  const lost = join(mirror(saltern), 'DCIM/101CURLW/CURL0001.MP4')
  renameSync(lost, join(root, 'kept.mp4'))
  await page.getByRole('button', { name: /I formatted it/ }).click()
  await expectAccessible(page, 'what is written down of a format')
  // Whoever is quicker: the look that finds it missing, or the press; neither writes anything down.
  expect(await said()).toMatchObject({ status: 409 })
  await expect(page.getByRole('alertdialog')).toContainText('Saltern drive: 1 file is gone')
  await page.keyboard.press('Escape')
  await expect(heading(page)).toContainText('Not yet')
  await expect(page.locator('[data-volume="Saltern drive"]')).toContainText('1 file no longer as proved')
  rmSync(mirror(saltern), { recursive: true })
  await page.reload()
  await expect(heading(page)).toContainText('Not yet')
  await expect(page.locator('[data-volume="Saltern drive"]')).toContainText('gone from the volume')
  expect((await said()).status).toBe(409)
  expect(await copyAgain(request)).toMatch(/^All [45] files proved on Mudflat drive and Saltern drive/)
  expect(debian('diff', ['-r', slot, mirror(saltern)])).toBe('')
})

more('a flipped bit is found by reading a copy again', async ({ page, request }) => {
  await page.goto(`/p/${production}/copies`)
  await expect(heading(page)).toContainText('Yes: this card may be formatted')
  const clip = join(mirror(saltern), 'DCIM/101CURLW/CURL0001.MP4')
  rewriteUnseen(clip, (bytes) => (bytes[2000] = (bytes[2000] ?? 0) ^ 1))
  await page.getByRole('button', { name: 'Read again from Saltern drive' }).click()
  await expect(page.locator('[data-task="check"]')).toContainText(
    'CURL0001.MP4 on Saltern drive was rewritten with its old time',
  )
  await expect(heading(page)).toContainText('Not yet')
  await expect(page.getByRole('button', { name: 'Set the other files aside, and copy again' })).toBeVisible()
  expect(await copyAgain(request, true)).toContain('All 4 files proved on Mudflat drive and Saltern drive')
  await expect(heading(page)).toContainText('Yes: this card may be formatted', { timeout: 120_000 })
  expect(debian('diff', ['-r', slot, mirror(saltern)])).toBe('')
})

more('with both drives pulled out nobody is told yes', async ({ page }) => {
  await page.goto(`/p/${production}/copies`)
  await expect(heading(page)).toContainText('Yes: this card may be formatted')
  for (const drive of [mudflat, saltern]) renameSync(drive, `${drive} pulled`)
  await expect(heading(page)).toContainText('no copy can be seen now', { timeout: 90_000 })
  await expect(page.getByRole('button', { name: /I formatted it/ })).toHaveCount(0)
  for (const drive of [mudflat, saltern]) renameSync(`${drive} pulled`, drive)
  await expect(heading(page)).toContainText('Yes: this card may be formatted', { timeout: 90_000 })
})

more('a second card that is swapped in proves nothing, and is not taken for the first', async ({ page, request }) => {
  const other = join(root, 'second card')
  debian('cp', ['-a', slot, other])
  const twin = join(other, 'DCIM/101CURLW/CURL0001.MP4')
  rewriteUnseen(twin, (bytes) => bytes.fill(9))
  renameSync(slot, join(root, 'first card'))
  renameSync(other, slot)
  await page.goto(`/p/${production}/copies`)
  await expect(heading(page)).toContainText('clips differs: it is not the card that was copied')
  expect(await copyAgain(request)).toContain('is not the one of “Curlew B”')
  renameSync(slot, other)
  renameSync(join(root, 'first card'), slot)
  await expect(heading(page)).toContainText('Yes: this card may be formatted', { timeout: 90_000 })
})

more('a reader that holds another card, or none, does not pass for the one that was scanned', async ({ page }) => {
  await page.goto(`/p/${production}/cards`)
  await expect(heading(page)).toContainText('“Curlew B”')
  renameSync(slot, join(root, 'in the camera'))
  await expect(heading(page)).toContainText('No card is in the reader', { timeout: 90_000 })
  mkdirSync(card, { recursive: true })
  film('CURL0004.MP4')
  await expect(heading(page)).toContainText('A card is in left slot and has not been scanned', {
    timeout: 90_000,
  })
})

more(
  'a card of raw frames, which nothing here can play, is cleared by the person’s own eyes',
  async ({ page, request }) => {
    const inSlot = async () =>
      ((await (await request.get('/api/readers')).json()) as ReaderView[]).find(({ name }) => name === 'left slot')
    for (const folder of [slot, mirror(mudflat), mirror(saltern)]) rmSync(folder, { recursive: true })
    // Whoever presses before it is noticed that another card lies there is asked to press again.
    await expect.poll(async () => (await inSlot())?.state, { timeout: 90_000 }).not.toBe('card')
    mkdirSync(join(slot, 'HERON'), { recursive: true })
    const frames = ['-v', 'error', '-f', 'lavfi', '-i', 'testsrc2=s=64x36:r=25', '-frames:v', '3', '-c:v', 'tiff']
    debian('ffmpeg', [...frames, join(slot, 'HERON/HERON_%03d.TIF')])
    await expect.poll(async () => (await inSlot())?.state, { timeout: 90_000 }).toBe('card')
    production = String((await post(request, '/productions', { title: 'Pole shots' })).body?.id)
    await page.goto(`/p/${production}/cards`)
    await page.getByLabel('Call it').fill('Heron C')
    await choose(page, page.getByRole('combobox', { name: 'For which production' }), 'Pole shots')
    await page.getByRole('button', { name: 'Scan the card' }).click()
    await expect(heading(page)).toContainText('1 clip, 0.12 s: nothing wrong found.')
    expect(await copyAgain(request)).toContain('All 3 files proved')
    const { loadId, copies } = await copiesOf(request)
    const played = (clipId: string | null) =>
      post(request, `/loads/${loadId}/spot-plays`, { volumeId: copies[0]?.volumeId, clipId, seconds: 1 })
    expect((await played('00000000-0000-4000-8000-000000000000')).status).toBe(404)
    await page.keyboard.press('3')
    await page.locator('[data-volume="Mudflat drive"]').getByRole('button', { name: 'Play from it' }).click()
    await expect(page.getByRole('dialog')).toContainText('Pole shots/Cards/Heron C')
    await page.getByRole('button', { name: 'I opened a file, and it is whole' }).click()
    await expect(page.locator('[data-volume="Mudflat drive"]')).toHaveAttribute('data-mark', '3')
    await expect(heading(page)).toContainText('Yes: this card may be formatted')
  },
)
