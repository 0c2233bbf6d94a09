import { readFileSync } from 'node:fs'
import { homedir } from 'node:os'
import { expect, type Page } from '@playwright/test'
import { STATION_NAMES } from '../../core/line/stations'
import { expectAccessible } from './access'
import { choose, debian, post, productionId } from './bench'
import { ownHouse, test } from './house'

ownHouse()

const heading = (page: Page) => page.getByRole('heading', { level: 1 })

test('eight tabs are open at once, and the one that is looked at hears the news', async ({ context, request }) => {
  const tabs: Page[] = []
  for (let at = 0; at < 8; at += 1) {
    const tab = await context.newPage()
    // A browser without windows shows all its tabs at once; each says here that it is hidden once the next one is
    // opened.
    await tab.addInitScript(() => {
      const state = { hidden: false }
      Object.defineProperty(document, 'visibilityState', { get: () => (state.hidden ? 'hidden' : 'visible') })
      window.addEventListener('message', ({ data }) => {
        if (data !== 'hide' && data !== 'show') return
        state.hidden = data === 'hide'
        document.dispatchEvent(new Event('visibilitychange'))
      })
    })
    await tab.goto('/')
    await expect(heading(tab)).toBeVisible()
    await tab.evaluate(() => window.postMessage('hide'))
    tabs.push(tab)
  }
  const [first] = tabs
  if (!first) throw new Error('no tab')
  await post(request, '/productions', { title: 'Made while tab 1 was hidden' })
  await first.evaluate(() => window.postMessage('show'))
  await expect(first.getByText('Made while tab 1 was hidden').first()).toBeVisible()
  for (const tab of tabs) await tab.close()
})

test('the key for the next step leads where the overview says, whatever stands above it', async ({ page, request }) => {
  await post(request, '/productions', { title: 'Newer, and nothing in it yet' })
  await page.goto('/')
  const there = await page
    .getByRole('region', { name: 'What needs you' })
    .getByRole('link')
    .first()
    .getAttribute('href')
  await page.keyboard.press('n')
  await expect(page).toHaveURL(new RegExp(`${there}$`))
})

test('the list of keys names those of the page that is open', async ({ page, request }) => {
  const id = await productionId(request, 'Steam-bending ribs')
  for (const [path, titles] of [
    ['/cards', ['Table']],
    ['/cards/review', ['Review']],
    ['/cards/sorted', ['Folders of the sorted view']],
    ['/exports', ['Crop window']],
    ['/proxies', []],
    ['/copies', ['Sample of a copy']],
  ] as const) {
    await page.goto(`/p/${id}${path}`)
    await expect(heading(page)).toBeVisible()
    await page.keyboard.press('Shift+?')
    const keys = page.getByRole('dialog', { name: 'Keys' })
    await expect(keys.getByText('Go to a station of this production')).toBeVisible()
    await expect(keys.getByRole('heading', { level: 3 })).toHaveText([...titles, 'Everywhere'])
    await page.keyboard.press('Escape')
  }
})

test('the theme is changed by one press and remembered', async ({ page }) => {
  await page.goto('/')
  const background = () => page.evaluate(() => getComputedStyle(document.documentElement).backgroundColor)
  const day = await background()
  await page.getByRole('button', { name: 'Change to night' }).click()
  const night = await background()
  expect(night).not.toBe(day)
  await page.reload()
  expect(await background()).toBe(night)
  await page.getByRole('button', { name: 'Change to day' }).click()
  expect(await background()).toBe(day)
})

test('the palette finds productions, clips, volumes and stations by a few letters', async ({ page }) => {
  await page.goto('/')
  await expect(heading(page)).toBeVisible()
  const find = async (letters: string, shown: string) => {
    await page.keyboard.press('/')
    await expect(page.getByRole('combobox', { name: 'Find anything' })).toBeFocused()
    await page.keyboard.type(letters)
    await expect(page.getByRole('option', { selected: true })).toContainText(shown)
    await page.keyboard.press('Enter')
    await expect(page.getByRole('dialog')).toHaveCount(0)
  }
  await find('sail', 'Sail loft')
  await expect(page).toHaveURL(/storage/)
  await find('neap', 'Neap')
  await expect(page).toHaveURL(/storage/)
  await find('shoo', STATION_NAMES.shoot)
  await expect(page).toHaveURL(/shoot/)
  await find('all prod', 'All productions')
  await page.keyboard.press('Control+k')
  await page.getByRole('combobox', { name: 'Find anything' }).fill('no such thing')
  await expect(page.getByText('Nothing by that name.')).toBeVisible()
})

test('the clip table sorts by any column, and says by which', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Steam-bending ribs')}/cards`)
  const table = page.getByRole('grid', { name: /^Clips of/ }).last()
  const names = () =>
    table.locator('[data-clip]').evaluateAll((rows) => rows.map((row) => row.getAttribute('data-clip')))
  await table.getByRole('button', { name: 'Recorded' }).click()
  const up = await names()
  await expect(table.getByRole('columnheader', { name: 'Recorded' })).toHaveAttribute('aria-sort', 'ascending')
  await table.getByRole('button', { name: 'Recorded' }).click()
  await expect(table.getByRole('columnheader', { name: 'Recorded' })).toHaveAttribute('aria-sort', 'descending')
  await expect.poll(names).toEqual([...up].reverse())
})

test('rows of the clip table are selected with Shift, Ctrl and keys, and saved as a spreadsheet', async ({
  page,
  request,
}) => {
  await page.goto(`/p/${await productionId(request, 'Steam-bending ribs')}/cards`)
  const grid = page.getByRole('grid', { name: /^Clips of/ }).last()
  const rows = grid.locator('[data-clip]')
  await rows.first().waitFor()
  const count = await rows.count()
  const selected = () => grid.locator('[aria-selected=true]').count()
  await rows.nth(0).click()
  await rows.nth(2).click({ modifiers: ['Shift'] })
  expect(await selected()).toBe(3)
  await rows.nth(1).click({ modifiers: ['Control'] })
  expect(await selected()).toBe(2)
  await grid.focus()
  await page.keyboard.press('Home')
  await page.keyboard.press('Shift+ArrowDown')
  expect(await selected()).toBe(2)
  await page.keyboard.press('Control+a')
  expect(await selected()).toBe(count)
  await expectAccessible(page, 'the clip table with rows selected')
  await page.keyboard.press('Escape')
  expect(await selected()).toBe(0)
  const saved = async (way: RegExp) => {
    const saving = page.waitForEvent('download')
    await page.getByRole('button', { name: 'Save as CSV' }).last().click()
    await page.getByRole('menuitem', { name: way }).click()
    return readFileSync(await (await saving).path(), 'utf8')
  }
  const table = await saved(/^As a table/)
  // Source: RFC 3629, 6: the mark is EF BB BF, and nothing else is otherwise.
  expect(await saved(/^For a spreadsheet/)).toBe(`\uFEFF${table}`)
  const lines = table.trimEnd().split('\r\n')
  expect(lines[0]).toBe('Clip,Frame,Rate,Length,Codec,Bytes,Recorded')
  expect(lines).toHaveLength(count + 1)
  expect(lines[1]).toMatch(/^DCIM\/100CURLW\/CURL00\d\d\.MP4,3840×2160,25\/1,/)
})

test('clips are edited without proxies by one press, which is taken back by another', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Steam-bending ribs')}/proxies`)
  const rows = page.locator('[data-proxy]')
  const without = rows.getByText('edited without one')
  await expect(heading(page)).toHaveText('1 of 3 clips has a proxy.')
  await page.getByRole('button', { name: 'Edit without them' }).click()
  await expect(heading(page)).toHaveText(/^The one proxy .*; 2 clips are edited without one\.$/)
  await expect(without).toHaveCount(2)
  await page.getByRole('button', { name: 'Take it back' }).click()
  await expect(heading(page)).toHaveText('1 of 3 clips has a proxy.')
  await expect(without).toHaveCount(0)
  // One alone, and wanted again.
  await rows.first().locator('summary').click()
  await rows.first().getByRole('button', { name: 'Edit without a proxy' }).click()
  await expect(heading(page)).toHaveText('1 of 2 clips has a proxy.')
  await rows.first().getByRole('button', { name: 'A proxy is wanted' }).click()
  await expect(heading(page)).toHaveText('1 of 3 clips has a proxy.')
})

test('the properties of a clip open by Enter and by a press, each with its source', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Steam-bending ribs')}/cards`)
  const grid = page.getByRole('grid', { name: /^Clips of/ }).last()
  await grid.locator('[data-clip]').first().waitFor()
  await grid.focus()
  await page.keyboard.press('Home')
  await page.keyboard.press('Enter')
  const sheet = page.getByRole('dialog')
  const picture = sheet.getByRole('region', { name: 'Picture' })
  await expect(picture).toContainText('3840×2160')
  await expect(picture.locator('div', { hasText: /^Frames presented/ })).toContainText('index')
  await expectAccessible(page, 'the properties of a clip')
  await sheet.getByRole('button', { name: 'Count the frames one by one' }).click()
  await expect(picture.locator('div', { hasText: /^Frames counted/ })).toContainText('every packet', {
    timeout: 60_000,
  })
  await page.keyboard.press('Escape')
  await expect(sheet).toHaveCount(0)
  await grid
    .getByRole('button', { name: /^Properties of/ })
    .nth(1)
    .click()
  await expect(sheet.getByRole('region', { name: 'File' })).toContainText('Container')
})

test('labels fill a sheet of either paper, and their codes are read from it', async ({ page }) => {
  await page.goto('/locker/drives')
  await page.getByRole('link', { name: 'Labels for drives and cards' }).click()
  const labels = page.getByRole('list', { name: 'Labels' }).getByRole('listitem')
  await expect(labels.filter({ hasText: 'Tide 2' })).toContainText('4.00 TB drive')
  const all = await labels.count()
  await page.getByLabel('Heron 1, card').uncheck()
  await expect(labels).toHaveCount(all - 1)
  await expectAccessible(page, 'labels', 'both')
  const names = await labels.evaluateAll((some) => some.map((one) => one.getAttribute('data-label') ?? ''))
  // Source: zbarimg of Debian, which reads QR codes (ISO/IEC 18004), each from the picture of its place on the page.
  const expectRead = async (size: string, marginMm: number, places: readonly number[]) => {
    const pdf = await page.pdf({ preferCSSPageSize: true })
    expect(debian('pdfinfo', ['-'], undefined, pdf)).toMatch(new RegExp(`Pages: +1\n[^]*Page size: +${size} pts`))
    const dots = (mm: number) => String(Math.floor((mm * 200) / 25.4))
    for (const at of places) {
      const [x, y] = [marginMm + 62 * (at % 3), marginMm + 34 * Math.floor(at / 3)].map(dots)
      const crop = ['-r', '200', '-png', '-x', `${x}`, '-y', `${y}`, '-W', dots(32), '-H', dots(34), '-']
      const picture = Buffer.from(debian('pdftoppm', crop, undefined, pdf), 'latin1')
      const said = debian('zbarimg', ['-q', '--raw', '-Sdisable', '-Sqrcode.enable', '-'], undefined, picture)
      expect(said).toMatch(new RegExp(`^${names[at]}\n(drive|card) [0-9a-f-]{36}\n$`))
    }
  }
  await expectRead('594.96 x 841.92', 12, [0, 1, names.length - 1])
  await choose(page, page.getByLabel('Paper'), 'Letter, 21 labels a page')
  await expectRead('612 x 792', 14, [2, 4])
})

test('the copy chart is printed dark on white, also from the night theme, with no button on it', async ({
  page,
  request,
}) => {
  const id = await productionId(request, 'Steam-bending ribs')
  await page.goto(`/p/${id}/copies`)
  await page.evaluate(() => localStorage.setItem('yendra-theme', 'night'))
  await page.getByRole('link', { name: 'The copy chart of all loads, for printing' }).click()
  await expect(heading(page)).toHaveText('Steam-bending ribs')
  await expect(page.locator('[data-load="Curlew A"]').getByRole('img', { name: 'spot-played, 3 of 3' })).toBeVisible()
  await expectAccessible(page, 'the copy chart', 'day')
  await page.reload()
  await page.emulateMedia({ media: 'print' })
  await expect(heading(page)).toBeVisible()
  const colours = await page.locator('main').evaluate((main) => {
    const { color, backgroundColor } = getComputedStyle(main)
    return { color, backgroundColor }
  })
  expect(colours).toEqual({ color: 'rgb(0, 0, 0)', backgroundColor: 'rgb(255, 255, 255)' })
  await expect(page.getByRole('button')).toHaveCount(0)
  await expect(page.getByRole('link', { name: 'Back to Copies' })).toBeHidden()
  // A production fits one page.
  expect((await page.pdf({ format: 'A4' })).toString('latin1').match(/\/Type\s*\/Page\b/g)).toHaveLength(1)
  await page.emulateMedia({ media: 'screen' })
  await page.evaluate(() => localStorage.setItem('yendra-theme', 'day'))
})

test('an empty station says what it is for and offers the first step, a finished one what the records know', async ({
  page,
  request,
}) => {
  const { body } = await post(request, '/productions', { title: 'Nothing in it yet' })
  for (const [station, sentence] of [
    ['shoot', 'Plan what will be recorded.'],
    ['copies', 'Nothing to copy yet.'],
    ['proxies', 'No clips to make proxies of.'],
    ['exports', 'Nothing to frame yet.'],
    ['shelf', 'Nothing to shelve yet.'],
  ] as const) {
    await page.goto(`/p/${String(body?.id)}/${station}`)
    await expect(heading(page)).toHaveText(sentence)
  }
  await page.getByRole('link', { name: 'Make a deliverable first' }).click()
  await expect(page).toHaveURL(/exports/)
  const finished = await productionId(request, 'Stripping the clinker hull')
  for (const [station, sentence] of [
    ['shoot', 'Filmed on Sat 2026-08-22; no plan is kept.'],
    ['cards', '586 GB of footage, filmed on Sat 2026-08-22.'],
    ['cards/review', '586 GB of footage, filmed on Sat 2026-08-22.'],
    ['copies', 'Its footage lies on Ebb (house) and Neap (aunt’s flat).'],
    ['proxies', '212 GB that can be made again are kept on Ebb.'],
    ['exports', '14.0 GB of finished films lie on Ebb and Neap.'],
    ['shelf', 'It is put away on 2 drives.'],
  ] as const) {
    await page.goto(`/p/${finished}/${station}`)
    await expect(heading(page)).toHaveText(sentence)
  }
  await page.getByRole('link', { name: 'Scan its folder as a card' }).click()
  await expect(page.getByRole('button', { name: 'Add a reader folder' })).toBeVisible()
})

test('a wrong folder is refused under its field, and nothing typed is lost', async ({ page, request }) => {
  await page.goto(`/p/${await productionId(request, 'Sail loft')}/storage`)
  await page.getByRole('button', { name: 'Add a volume' }).click()
  const sheet = page.getByRole('dialog', { name: 'Add a volume' })
  await sheet.getByRole('button', { name: 'Add it' }).click()
  await expect(sheet.getByText('Name the volume.')).toBeVisible()
  await sheet.getByLabel('Folder').fill('/nowhere/at/all')
  await sheet.getByLabel('Name', { exact: true }).fill('Sandbank')
  await sheet.getByLabel('Kept at').fill('house')
  await sheet.getByRole('button', { name: 'Add it' }).click()
  await expect(sheet.getByRole('alert')).toContainText('There is no folder at /nowhere/at/all')
  await expect(sheet.getByLabel('Name', { exact: true })).toHaveValue('Sandbank')
  await sheet.getByRole('button', { name: 'Leave' }).click()
  await expect(sheet).toHaveCount(0)
})

test('a folder is found by walking to it with the keyboard, and what may not be added says so', async ({
  page,
  request,
}) => {
  await page.goto(`/p/${await productionId(request, 'Sail loft')}/storage`)
  await page.getByRole('button', { name: 'Add a volume' }).click()
  const sheet = page.getByRole('dialog', { name: 'Add a volume' })
  await sheet.getByRole('group', { name: 'Drives and cards' }).getByRole('button', { name: 'Your own folder' }).focus()
  await page.keyboard.press('Enter')
  await expect(sheet.getByRole('textbox', { name: 'Folder' })).toHaveValue(homedir())
  await expect(sheet.getByText('somebody’s whole home')).toBeVisible()
  await expect(sheet.getByRole('button', { name: 'All drives' })).toBeFocused()
  await page.keyboard.press('ArrowLeft')
  await expect(sheet.getByRole('textbox', { name: 'Folder' })).toHaveValue('')
  await expect(sheet.getByRole('group', { name: 'Drives and cards' })).toBeVisible()
  await expectAccessible(page, 'the folder chooser')
})

test('what is typed and not kept is asked about before it is left, and no other window is overwritten', async ({
  page,
  request,
}) => {
  const day = `/p/${await productionId(request, 'Launch day')}/shoot/day`
  const leaving = page.getByRole('alertdialog', { name: 'Leave without saving?' })
  await page.goto(day)
  await page.getByLabel('Place').fill('North slip, in the lee')
  await page.getByRole('link', { name: 'Shot list' }).click()
  await expect(leaving).toBeVisible()
  await leaving.getByRole('button', { name: 'Not yet' }).click()
  await expect(page.getByLabel('Place')).toHaveValue('North slip, in the lee')

  // Another window keeps another place meanwhile: nothing of either is lost without a word.
  const other = await page.context().newPage()
  await other.goto(day)
  await other.getByLabel('Place').fill('South slip')
  await other.getByRole('button', { name: 'Save this day' }).click()
  await expect(other.getByRole('button', { name: 'Save this day' })).toBeDisabled()
  await page.getByRole('button', { name: 'Save this day' }).click()
  await expect(page.getByRole('alert')).toContainText('changed in another window')
  await expect(page.getByLabel('Place')).toHaveValue('North slip, in the lee')
  await page.getByRole('button', { name: 'Show it as it is now' }).click()
  await expect(page.getByLabel('Place')).toHaveValue('South slip')
  await page.getByRole('link', { name: 'Shot list' }).click()
  await expect(page).toHaveURL(/shots$/)

  // A sheet: untouched it closes at once, touched it asks.
  await page.goto('/locker/gear')
  const change = page.getByRole('button', { name: /^Change Curlew/ }).first()
  await change.click()
  const sheet = page.getByRole('dialog', { name: /^Change Curlew/ })
  await page.keyboard.press('Escape')
  await expect(sheet).toBeHidden()
  await change.click()
  await sheet.getByLabel('Name').fill('Curlew of the pier')
  await page.keyboard.press('Escape')
  await expect(leaving).toBeVisible()
  await page.keyboard.press('Escape')
  await expect(sheet.getByLabel('Name')).toHaveValue('Curlew of the pier')
  await sheet.getByRole('button', { name: 'Close' }).click()
  await leaving.getByRole('button', { name: 'Leave it' }).click()
  await expect(sheet).toBeHidden()
  await expect(change).toBeFocused()
})

test('what is drawn is seen in the colours that a person chose, too', async ({ page, request }) => {
  await page.emulateMedia({ forcedColors: 'active' })
  const launch = await productionId(request, 'Launch day')
  await page.goto(`/p/${launch}/shoot`)
  await expect(page.locator('button span.bg-wash').first()).toHaveCSS('border-right-width', '4px')
  await page.goto(`/p/${launch}/shoot/measured`)
  const bar = page.locator('span.bg-accent').first()
  await expect(bar).toBeVisible()
  const [drawn, behind] = await bar.evaluate((part) =>
    [part, document.documentElement].map((element) => getComputedStyle(element).backgroundColor),
  )
  expect(drawn).not.toBe(behind)
})
