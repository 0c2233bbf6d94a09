import { rmSync } from 'node:fs'
import { join } from 'node:path'
import { expect, type APIRequestContext } from '@playwright/test'
import type { LoadCopies } from '../../contract/copies'
import type { LoadView } from '../../contract/cards'
import type { Page } from '../../contract/page'
import {
  cardFolder,
  debian,
  deviceId,
  post,
  productionId,
  runState,
  startTask,
  taskEnd,
  taskNow,
  volumeFolder,
  volumeIds,
} from './bench'
import { more, ownHouse, test } from './house'

ownHouse()

const TITLE = 'Launch day'

/** Puts a card in, looks at it for “Launch day” and returns its load; a load known already is looked at again. */
async function scanOne(request: APIRequestContext, card: string, production = TITLE): Promise<LoadView> {
  const id = await productionId(request, production)
  const reader = await deviceId(request, 'Bench reader')
  await post(request, `/bench/${reader}/insert`, { card })
  expect(
    (await taskEnd(request, await startTask(request, `/readers/${reader}/scan`, { productionId: id }))).state,
  ).toBe('done')
  for (const title of [TITLE, 'Steam-bending ribs']) {
    const { rows } = (await (
      await request.get(`/api/productions/${await productionId(request, title)}/loads`)
    ).json()) as Page<LoadView>
    const load = rows.find((one) => one.label === card)
    if (load) return load
  }
  throw new Error(`No load of ${card}`)
}

async function copiesOf(request: APIRequestContext, load: LoadView) {
  const all = (await (await request.get(`/api/productions/${load.productionId}/copies`)).json()) as Page<LoadCopies>
  return all.rows.find((one) => one.loadId === load.id)
}

test.describe.configure({ mode: 'serial' })

more('a worker killed in mid-copy and started again ends as an undisturbed copy does', async ({ request }) => {
  const load = await scanOne(request, 'Curlew A', 'Steam-bending ribs')
  await post(request, `/bench/${await deviceId(request, 'Lantern')}/plug`)
  const [slipway = '', tide = '', lantern = ''] = await volumeIds(request, 'Slipway', 'Tide 2', 'Lantern')
  await taskEnd(request, await startTask(request, `/loads/${load.id}/copies`, { volumeIds: [slipway] }))
  const task = await startTask(request, `/loads/${load.id}/copies`, { volumeIds: [tide, lantern] })
  const { worker } = runState().processes
  await expect
    .poll(async () => (await taskNow(request, task)).progress?.volumes?.[0]?.written ?? 0, { intervals: [50] })
    .toBeGreaterThan(8_000_000)
  process.kill(worker ?? 0, 'SIGKILL')
  expect((await taskNow(request, task)).state).toBe('running')
  const end = await taskEnd(request, task)
  expect(end).toMatchObject({
    state: 'done',
    troubles: [],
    sentence: expect.stringContaining('All 7 files proved on Tide 2 and Lantern'),
  })
  const copies = (await copiesOf(request, load))?.copies ?? []
  const undisturbed = copies.find((copy) => copy.volumeName === 'Slipway')
  for (const name of ['Tide 2', 'Lantern']) {
    const copy = copies.find((one) => one.volumeName === name)
    expect(copy).toMatchObject({
      mark: 2,
      filesVerified: undisturbed?.filesVerified,
      sizeBytes: undisturbed?.sizeBytes,
      folder: undisturbed?.folder,
    })
    // Source: diff and find of Debian. Same files, same times to the microsecond, same checksum list as the undisturbed
    // copy.
    const base = join(volumeFolder(name), 'Steam-bending ribs/Cards')
    expect(debian('diff', ['-r', cardFolder('Curlew A'), join(base, 'Curlew A')])).toBe('')
    expect(
      debian('diff', [
        join(volumeFolder('Slipway'), 'Steam-bending ribs/Cards/Curlew A.xxh64'),
        join(base, 'Curlew A.xxh64'),
      ]),
    ).toBe('')
    const times = (folder: string) =>
      debian('find', ['.', '-type', 'f', '-printf', '%P\t%T@\n'], folder)
        .trim()
        .split('\n')
        .sort()
        .map((line) => line.split('\t'))
    const wanted = times(cardFolder('Curlew A'))
    for (const [at, [path, time]] of times(join(base, 'Curlew A')).entries()) {
      expect(path).toBe(wanted[at]?.[0])
      expect(Math.abs(Number(time) - Number(wanted[at]?.[1])), path).toBeLessThan(0.000_002)
    }
    expect(debian('find', [volumeFolder(name), '-name', '*.part'])).toBe('')
  }
})

test('a paused copy holds still, goes on, and a stopped one leaves nothing half-written', async ({ request }) => {
  const load = await scanOne(request, 'Field 1')
  const [bucket = ''] = await volumeIds(request, 'Saltings bucket')
  const task = await startTask(request, `/loads/${load.id}/copies`, { volumeIds: [bucket] })
  await expect
    .poll(async () => (await taskNow(request, task)).progress?.done ?? 0, { intervals: [50] })
    .toBeGreaterThan(0)
  expect((await post(request, `/tasks/${task}/pause`)).status).toBe(204)
  await expect
    .poll(async () => {
      const before = (await taskNow(request, task)).progress?.done
      await new Promise((resolve) => setTimeout(resolve, 1500))
      return (await taskNow(request, task)).progress?.done === before
    })
    .toBe(true)
  expect((await taskNow(request, task)).state).toBe('paused')
  expect((await post(request, `/tasks/${task}/resume`)).status).toBe(204)
  expect((await post(request, `/tasks/${task}/stop`)).status).toBe(204)
  expect((await taskEnd(request, task)).state).toBe('stopped')
  // A part that is whole may be the only file with those bytes, and stays; half of one does not.
  const sizes = debian('find', [join(volumeFolder('Saltings bucket'), '.yendra'), '-name', '*.part', '-printf', '%s\n'])
  const whole = debian('find', [cardFolder('Field 1'), '-type', 'f', '-printf', '%s\n']).split('\n')
  for (const size of sizes.split('\n').filter(Boolean)) expect(whole).toContain(size)
  expect((await post(request, `/tasks/${task}/pause`)).status).toBe(409)
})

test('a flipped bit is named with file and volume, and copying again mends it', async ({ request, page }) => {
  const load = await scanOne(request, 'Field 1')
  const [slipway = '', tide = ''] = await volumeIds(request, 'Slipway', 'Tide 1')
  await post(request, `/bench/${await deviceId(request, 'Tide 1')}/fault`, { kind: 'flip-bit', afterBytes: 1_000_000 })
  const end = await taskEnd(
    request,
    await startTask(request, `/loads/${load.id}/copies`, { volumeIds: [slipway, tide] }),
  )
  expect(end.troubles).toEqual([
    expect.stringMatching(/^TAKES\/FLD1000\d\.WAV on Tide 1 differed when it was read back/),
  ])
  await page.goto(`/p/${load.productionId}/copies`)
  await page
    .getByRole('tab', { name: /Field 1/ })
    .or(page.getByRole('heading', { name: /Field 1/ }))
    .first()
    .click()
  await expect(page.getByRole('heading', { level: 1 })).toContainText('Not yet')
  await expect(page.locator('[data-task="copy"]')).toContainText('differed when it was read back')
  await expect(page.locator('[data-volume="Tide 1"]')).toHaveAttribute('data-mark', '0')
  await page.getByRole('button', { name: /^Copy to Tide 1, and prove it/ }).click()
  await expect(page.locator('[data-volume="Tide 1"]')).toHaveAttribute('data-mark', '2', { timeout: 90_000 })
  expect(debian('diff', ['-r', cardFolder('Field 1'), join(volumeFolder('Tide 1'), TITLE, 'Cards/Field 1')])).toBe('')
})

more('a full drive does not stop the other, and says how many bytes are missing', async ({ request }) => {
  const load = await scanOne(request, 'Field 1')
  for (const name of ['Tide 2', 'Lantern']) rmSync(join(volumeFolder(name), TITLE), { recursive: true, force: true })
  const [tide = '', lantern = ''] = await volumeIds(request, 'Tide 2', 'Lantern')
  const device = await deviceId(request, 'Lantern')
  await post(request, `/bench/${device}/fault`, { kind: 'full', afterBytes: 3_000_000 })
  const end = await taskEnd(
    request,
    await startTask(request, `/loads/${load.id}/copies`, { volumeIds: [tide, lantern] }),
  )
  expect(end.troubles).toEqual([expect.stringMatching(/^Lantern is full: .* \(\d+ bytes\) are missing/)])
  expect(end.sentence).toContain('proved on Tide 2')
  await post(request, `/bench/${device}/fault`, { kind: 'none', afterBytes: 0 })
  expect(debian('diff', ['-r', cardFolder('Field 1'), join(volumeFolder('Tide 2'), TITLE, 'Cards/Field 1')])).toBe('')
})

test('a file of the person’s own is left alone, and set aside only when asked', async ({ request }) => {
  const load = await scanOne(request, 'Odd names')
  expect(load.findings.map((finding) => finding.kind)).toEqual(expect.arrayContaining(['link', 'odd-name']))
  const [slipway = '', tide = ''] = await volumeIds(request, 'Slipway', 'Tide 1')
  const mine = join(volumeFolder('Tide 1'), TITLE, 'Cards/Odd names/two\nlines.txt')
  debian('mkdir', ['-p', join(mine, '..')])
  debian('sh', ['-c', 'printf "my own notes" > "$1"', 'sh', mine])
  const order = { volumeIds: [slipway, tide], setAside: false }
  const first = await taskEnd(request, await startTask(request, `/loads/${load.id}/copies`, order))
  expect(first.troubles).toEqual([expect.stringMatching(/two\\nlines\.txt on Tide 1 is another file/)])
  expect(debian('cat', [mine])).toBe('my own notes')
  const second = await taskEnd(
    request,
    await startTask(request, `/loads/${load.id}/copies`, { ...order, setAside: true }),
  )
  expect(second.troubles).toEqual([])
  expect(debian('grep', ['-rl', 'my own notes', join(volumeFolder('Tide 1'), 'Set aside')]).trim()).toContain(
    'two\nlines.txt',
  )
  for (const drive of ['Slipway', 'Tide 1']) {
    const difference = (() => {
      try {
        return debian('diff', [
          '-r',
          '--no-dereference',
          cardFolder('Odd names'),
          join(volumeFolder(drive), TITLE, 'Cards/Odd names'),
        ])
      } catch (error) {
        return String((error as { stdout?: string }).stdout)
      }
    })()
    expect(difference).toBe(`Only in ${cardFolder('Odd names')}: shortcut\n`)
  }
})

more(
  'that a drive may be pulled out is said when it is gone from the list, and not once it is back',
  async ({ page, request }) => {
    await page.goto(`/p/${await productionId(request, TITLE)}/storage`)
    const lantern = await deviceId(request, 'Lantern')
    await post(request, `/bench/${lantern}/plug`)
    await page.getByRole('button', { name: 'Let go of Lantern' }).click()
    await expect(page.getByRole('button', { name: 'Let go of Lantern' })).toHaveCount(0)
    // What has no plug is connected and cannot be pulled out.
    await expect(page.getByRole('row', { name: /^Saltings bucket/ })).toBeVisible()
    await expect(page.getByRole('button', { name: 'Let go of Saltings bucket' })).toHaveCount(0)
    const [bucket] = await volumeIds(request, 'Saltings bucket')
    expect(await post(request, `/volumes/${bucket}/let-go`)).toMatchObject({ status: 409 })
    const said = page.getByText('Lantern may be pulled out.')
    await expect(said).toBeVisible()
    await post(request, `/bench/${lantern}/plug`)
    await expect(page.getByRole('button', { name: 'Let go of Lantern' })).toBeVisible()
    await expect(said).toHaveCount(0)
  },
)
