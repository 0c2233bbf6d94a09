import { appendFileSync, mkdirSync, readFileSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type Page } from '@playwright/test'
import type { ChartLine } from '../../contract/chart'
import type { Page as ListPage } from '../../contract/page'
import { expectAccessible } from './access'
import { choose, debian, deviceId, post, productionId, startTask, taskEnd, volumeFolder } from './bench'
import { ownHouse, test } from './house'

ownHouse()

test('the chart is narrowed, opened, checked and saved', async ({ page, request }) => {
  await page.goto('/')
  await page.getByRole('link', { name: 'Chart' }).click()
  const line = page.locator('[data-load="Curlew A"]')
  await expect(line).toContainText('keep it')
  // The house was copied, and with it the card: it is another one until it was read.
  const { rows: loads } = (await (await request.get('/api/chart')).json()) as ListPage<ChartLine>
  const load = loads.find((one) => one.label === 'Curlew A')
  await taskEnd(request, await startTask(request, `/loads/${load?.loadId}/card/read`, {}))
  await expect(line).toContainText('clear when seen at')
  await expect(line.getByRole('img', { name: 'spot-played, 3 of 3' })).toBeVisible()
  await line.getByRole('button').click()
  const opened = page.getByRole('group', { name: '“Curlew A” opened' })
  await expect(opened.getByRole('status')).toContainText('Yes: this card may be formatted')
  await expect(opened.getByRole('list', { name: 'Journal' })).toContainText('All 7 files proved on Slipway and Tide 1.')
  await opened.getByRole('tab', { name: 'File by file' }).click()
  await expect(opened.locator('[data-file]')).toHaveCount(7)
  await expectAccessible(page, 'the chart, opened', 'both')
  await page.getByLabel('Volume').click()
  await page.getByRole('option', { name: 'Saltings bucket' }).click()
  await expect(page.getByText('No load is of that kind.')).toBeVisible()
  await page.goto('/chart')
  // Source: the columns that docs/chart.md names.
  const columns = [...readFileSync('docs/chart.md', 'utf8').matchAll(/^\| (`.*?) \|/gm)].flatMap(([, names = '']) =>
    names.replaceAll('`', '').split(', '),
  )
  const [names = '', ...rows] = (await (await request.get('/api/chart.csv')).text()).trim().split('\r\n')
  expect(names.split(',')).toEqual(columns)
  expect(rows.filter((row) => row.includes('Curlew A'))).toHaveLength(2)
})

test('forty lines with eight volumes are one page, and more have their numbers', async ({ page }) => {
  const volumes = Array.from({ length: 8 }, (_, at) => ({
    id: `v${at}`,
    name: `Slipway ${at}`,
    siteId: `s${at % 3}`,
    site: `workshop ${at % 3}`,
    connected: true,
    away: false,
  }))
  const proof = new Date(Date.now() - 40 * 86_400_000).toISOString()
  const production = {
    id: 'p',
    title: 'Steam-bending ribs',
    client: 'own channel',
    shootOn: '2026-11-14',
    away: false,
    loads: 40,
    sizeBytes: 9e12,
  }
  let lines = 40
  await page.route(/\/api\/chart/, (route) =>
    route.fulfill({
      json: route.request().url().includes('/head')
        ? {
            volumes,
            clients: [],
            years: [2026],
            worst: null,
            others: 0,
            due: 0,
            loads: true,
            kept: false,
          }
        : {
            next: null,
            rows: Array.from({ length: lines }, (_, at) => ({
              ...{
                ...{ id: `l${at}`, loadId: `l${at}`, kept: null, said: [], formattedSaid: null },
                production,
                label: `Curlew ${at}`,
                camera: 'Plover',
                fileCount: 412,
                sizeBytes: 255e9,
              },
              copies: volumes.map(({ id }) => ({
                volumeId: id,
                mark: at % 4,
                filesCopied: 412,
                provedFrom: proof,
                provedTo: proof,
                wrong: false,
              })),
              ...{
                formattedAt: proof,
                formattedAgainst: null,
                formattedBecause: null,
                wouldBeClearAt: null,
                danger: 0,
                dangers: [],
              },
            })),
          },
    }),
  )
  const pages = async () => {
    await page.goto('/print/chart')
    await expect(page.getByRole('row', { name: /^Curlew/ })).toHaveCount(lines)
    const pdf = await page.pdf({ format: 'A4', preferCSSPageSize: true })
    return debian('pdftotext', ['-layout', '-', '-'], undefined, pdf)
  }
  expect((await pages()).split('\f').filter((text) => text.trim() !== '')).toHaveLength(1)
  lines = 90
  const long = (await pages()).split('\f').filter((text) => text.trim() !== '')
  expect(long.map((text, at) => text.includes(`page ${at + 1} of ${long.length}`))).toEqual(long.map(() => true))
  // Each page has the names of its columns.
  expect(long.every((text) => text.includes('Slipway 7'))).toBe(true)
})

/** Forty loads of ten productions as somebody kept them by hand, in another encoding than ours. */
const kept = (more: readonly string[]) => ({
  name: 'my drives.csv',
  mimeType: 'text/csv',
  buffer: Buffer.from(
    [
      'Kunde;Project;Shot on;Card;Size;Slipway;Grey 2',
      ...Array.from({ length: 40 }, (_, at) =>
        [
          at % 4 === 0 ? 'Zoë' : '',
          at % 4 === 0 ? `Boat ${at / 4}` : '',
          at % 4 === 0 ? `${1 + at / 4}.3.2025` : '',
          `Reel ${at}`,
          '118,5',
          'x',
          at % 2 ? '2025-03-20' : '-',
        ].join(';'),
      ),
      ...more,
    ].join('\r\n'),
    'latin1',
  ),
})
const open = (page: Page, more: readonly string[] = []) => page.getByLabel('A chart as CSV').setInputFiles(kept(more))

test('a chart that was kept by hand is refused with its bad rows named, comes in whole, and is taken back', async ({
  page,
  request,
}) => {
  await page.goto('/chart')
  await open(page, ['Zoë;Boat 9;;Reel 41;12,x;;', ';;31.2.2025;Reel 42;;;', 'Total;;;;4740;;'])
  const sheet = page.getByRole('dialog', { name: 'What this chart says' })
  await expect(sheet).toContainText('read as WINDOWS-1252')
  await sheet.getByLabel('Kunde').click()
  await page.getByRole('option', { name: 'client', exact: true }).click()
  await sheet.getByLabel('Grey 2').click()
  await page.getByRole('option', { name: 'on Grey 2' }).click()
  await expect(sheet.getByRole('list', { name: 'Rows that cannot be understood' }).getByRole('listitem')).toHaveText([
    /^Row 42: “12,x” is no size/,
    /^Row 43: “31.2.2025” is no day/,
    /^Row 44: it names no card or load/,
  ])
  await expectAccessible(page, 'a chart that comes in', 'both')
  const bring = sheet.getByRole('button', { name: 'Bring in 40 lines' })
  await expect(bring).toBeDisabled()
  await sheet.getByLabel('Leave these 3 rows out').check()
  await bring.click()
  await expect(page.getByRole('status').filter({ hasText: '40 lines came in.' })).toBeVisible()
  const line = page.locator('[data-load="Reel 39"]')
  await expect(line).toContainText('119 GB')
  await expect(line).toContainText('from a kept chart')
  await expect(line).toContainText('said on Grey 2')
  await expect(page.locator('[data-production="Boat 9"]')).toContainText('Zoë · Mon 2025-03-10 · 4 loads, 474 GB')
  await expect(line.getByRole('img')).toHaveCount(0)
  // What is proved stands as before, and the table tells both.
  await expect(page.locator('[data-load="Curlew A"]').getByRole('img', { name: 'spot-played, 3 of 3' })).toBeVisible()
  expect((await (await request.get('/api/chart.csv')).text()).match(/,Boat \d,/g)).toHaveLength(60)
  await line.getByRole('button').click()
  await expect(page.getByRole('group', { name: '“Reel 39” in a kept chart' })).toContainText('It counts for no yes')
  // The same again, whatever it is called, changes nothing.
  await open(page)
  await sheet.getByLabel('Kunde').click()
  await page.getByRole('option', { name: 'client', exact: true }).click()
  await sheet.getByLabel('Grey 2').click()
  await page.getByRole('option', { name: 'on Grey 2' }).click()
  await bring.click()
  await expect(
    page.getByRole('status').filter({ hasText: 'Nothing was changed; 40 lines a kept chart said already' }),
  ).toBeVisible()
  await page.getByRole('button', { name: 'Take “my drives.csv” back' }).click()
  await expect(page.locator('[data-load^="Reel"]')).toHaveCount(0)
  await expect(page.getByRole('list', { name: 'Charts that came in' })).toContainText('taken back')
})

test('what is no table says so, and nothing comes in', async ({ page }) => {
  await page.goto('/chart')
  await page
    .getByLabel('A chart as CSV')
    .setInputFiles({ name: 'a.csv', mimeType: 'text/csv', buffer: Buffer.from('PK\x03\x04 and more') })
  await expect(page.getByText('This is a workbook, not a table of text.')).toBeVisible()
  await page
    .getByLabel('A chart as CSV')
    .setInputFiles({ name: 'b.csv', mimeType: 'text/csv', buffer: Buffer.from('Card') })
  await expect(page.getByText('There is no line in this file.')).toBeVisible()
})

test('a folder is compared with the list it came with, and a list of it is written that another program reads', async ({
  page,
  request,
}) => {
  const drive = volumeFolder('Tide 1')
  mkdirSync(join(drive, 'Old trip/DAY 1'), { recursive: true })
  for (const name of ['one.mov', 'two.mov', 'empty'])
    writeFileSync(join(drive, 'Old trip/DAY 1', name), name.repeat(400))
  writeFileSync(join(drive, 'Old trip/DAY 1/empty'), '')
  // Source: md5sum of Debian, which wrote the list.
  writeFileSync(join(drive, 'Old trip.md5'), debian('sh', ['-c', 'find "Old trip" -type f -exec md5sum {} +'], drive))
  await page.goto('/chart')
  await page.getByRole('link', { name: 'Compare a folder with a checksum list' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Choose a folder')
  await page.getByLabel('Folder', { exact: true }).pressSequentially(join(drive, 'Old trip'))
  await expect(page.getByLabel('List', { exact: true })).toContainText('Old trip.md5, MD5')
  await page.getByRole('button', { name: 'Compare' }).click()
  const answer = page.getByRole('heading', { level: 1 })
  await expect(answer).toHaveText('Old trip: Everything that the list names lies here and is equal: 3 lines.')
  appendFileSync(join(drive, 'Old trip/DAY 1/two.mov'), 'damage')
  await page.getByRole('button', { name: 'Compare' }).click()
  await expect(answer).toHaveText('Old trip: 1 file has other content; 2 of 3 lines fit.')
  await expect(page.getByRole('list', { name: '1 file has other content' })).toContainText('DAY 1/two.mov, line')
  await expectAccessible(page, 'a folder that was compared', 'both')
  await choose(page, page.getByLabel('Made with'), 'xxHash 128')
  await page.getByRole('button', { name: 'Read it and write the list' }).click()
  const written = page.getByRole('region', { name: 'Lists that were written' })
  await expect(written).toContainText(join(drive, 'Old trip.xxh128'))
  debian('xxhsum', ['--strict', '--quiet', '-c', 'Old trip.xxh128'], drive)
  // Once more, for download, on a folder of nobody: nothing is written there.
  await page.getByLabel('For download').check()
  await choose(page, page.getByLabel('Made with'), 'SHA-256')
  await page.getByRole('button', { name: 'Read it and write the list' }).click()
  const saving = page.waitForEvent('download')
  await written.getByRole('link', { name: 'Old trip.sha256' }).click()
  debian('sha256sum', ['--strict', '--quiet', '-c', '-'], drive, readFileSync(await (await saving).path()))
  const refused = await request.post('/api/lists', { data: { folder: '/proc', algorithm: 'md5', where: 'download' } })
  expect([refused.status(), ((await refused.json()) as { detail: string }).detail]).toEqual([
    422,
    '/proc belongs to the system. Choose the folder with the footage.',
  ])
})

test('a copy that was changed is mended from the other one after one yes, and a sample of it is played by keys', async ({
  page,
  request,
}) => {
  const production = await productionId(request, 'Steam-bending ribs')
  const folder = join(volumeFolder('Slipway'), 'Steam-bending ribs/Cards/Curlew A/DCIM')
  const path = debian('find', [folder, '-iname', '*.mp4']).trim().split('\n')[0] ?? ''
  const good = readFileSync(path)
  const { atime, mtime } = statSync(path)
  writeFileSync(path, Buffer.concat([good.subarray(0, 900), Buffer.from([0, 1, 2]), good.subarray(903)]))
  utimesSync(path, atime, mtime)
  await page.goto('/chart')
  const repair = page.getByRole('region', { name: 'To repair' })
  await expect(repair).toContainText('1 file on Slipway can be mended from Tide 1')
  await repair.getByRole('button').click()
  const sheet = page.getByRole('dialog', { name: 'Repair copies' })
  await expect(sheet).toContainText(path.split('/').at(-1) ?? '')
  await expectAccessible(page, 'the repair of copies', 'both')
  await sheet.getByRole('button', { name: 'Yes, repair 1 file' }).click()
  await expect(repair).toBeHidden()
  await expect.poll(() => readFileSync(path).equals(good)).toBe(true)
  await page.goto(`/p/${production}/copies`)
  await expect(page.getByRole('list', { name: 'Reasons' })).toContainText('Slipway')
  await page.locator('[data-volume="Slipway"]').getByRole('button', { name: 'Play from it' }).click()
  await page.getByRole('button', { name: /^Play a sample/ }).click()
  const sample = page.getByRole('dialog', { name: 'A sample from Slipway' })
  await expect(sample).toContainText('The card is still in Bench reader: take it out')
  await post(request, `/bench/${await deviceId(request, 'Bench reader')}/eject`)
  await expect(sample).toContainText('The card is in no reader: what plays comes from Slipway.')
  // What plays is the piece that is named: `5 s to 8 s.`
  const [, from = '0'] = /(\d+) s to/.exec(await sample.getByRole('paragraph').nth(2).innerText()) ?? []
  await expect
    .poll(() => sample.locator('video').evaluate((film: HTMLVideoElement) => film.currentTime))
    .toBeGreaterThanOrEqual(Number(from) - 0.5)
  await expect(sample.getByRole('listitem').first().getByLabel('watched')).toBeVisible()
  await expectAccessible(page, 'the sample of a copy', 'both')
  const clips = await sample.getByRole('listitem').count()
  // What is left of it is gone through by a key.
  await expect(async () => {
    await page.keyboard.press('ArrowRight')
    await expect(sample.getByRole('status')).toContainText(`of ${clips} played from Slipway.`, { timeout: 300 })
  }).toPass()
  await page.keyboard.press('Enter')
  await expect(sample).toBeHidden()
  await expect(page.locator('[data-volume="Slipway"]')).toHaveAttribute('data-mark', '3')
})
