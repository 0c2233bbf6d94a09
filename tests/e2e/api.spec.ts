import { cpSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs'
import { request as httpRequest } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect } from '@playwright/test'
import type { ClipView } from '../../contract/cards'
import type { LoadCopies } from '../../contract/copies'
import type { GearView, LockerView } from '../../contract/gear'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import type { DayView, ShotView } from '../../contract/shoot'
import { post, productionId, volumeFolder, volumeIds, storage } from './bench'
import { ownHouse, STATE, test } from './house'

ownHouse()

/** Asks with headers that a browser would not let through. */
function rawStatus(
  base: string,
  headers: Record<string, string>,
  method = 'GET',
  path = '/api/productions',
): Promise<{ status: number; body: string }> {
  const url = new URL(base)
  return new Promise((resolve, reject) => {
    const req = httpRequest({ host: '127.0.0.1', port: url.port, path, method, headers }, (res) => {
      let body = ''
      res.on('data', (chunk: Buffer) => (body += chunk.toString()))
      res.on('end', () => resolve({ status: res.statusCode ?? 0, body }))
    })
    req.on('error', reject)
    req.end(method === 'POST' ? '{}' : undefined)
  })
}

const NOWHERE = '11111111-1111-4111-8111-111111111111'

test('every wrong request gets problem details with a sentence', async ({ request }) => {
  // Source: RFC 9457 sections 3 and 6.1 (media type, members type, title, status, detail).
  const wrong: [string, object, number, string?][] = [
    ['/productions', { title: '' }, 422, 'title'],
    ['/productions', { title: 'x', extra: 1 }, 422],
    ['/productions', { title: 7 }, 422, 'title'],
    [`/productions/${NOWHERE}/shots`, {}, 422],
    [`/productions/${NOWHERE}/shots`, { shots: [{ name: 'Hull' }] }, 404],
    [`/cards`, { name: 'A', capacityBytes: 1, bytesPerSecond: 1 }, 422],
    [`/cameras/${NOWHERE}/modes`, { name: 'A', picture: null, audioBitsPerSecond: 256_000 }, 404],
    [`/readers/${NOWHERE}/scan`, { productionId: NOWHERE }, 404],
    ['/readers', { name: 'a', path: 'relative' }, 422, 'path'],
    [`/loads/${NOWHERE}/copies`, { volumeIds: [NOWHERE] }, 404],
    [`/loads/x/copies`, { volumeIds: [NOWHERE] }, 404],
    [`/loads/${NOWHERE}/spot-plays`, { volumeId: NOWHERE, seconds: 1 }, 404],
    [`/loads/${NOWHERE}/formatted`, {}, 404],
    ['/proxies', { clipIds: [], volumeId: NOWHERE }, 422, 'clipIds'],
    ['/proxies', { clipIds: [NOWHERE], volumeId: NOWHERE }, 409],
    [
      '/exports',
      { clipId: NOWHERE, destinationId: 'no', volumeId: NOWHERE, window: { x: 0, y: 0, widthPx: 2, heightPx: 2 } },
      422,
      'destinationId',
    ],
    [
      '/exports',
      {
        clipId: NOWHERE,
        destinationId: 'tall-short',
        volumeId: NOWHERE,
        window: { x: 0.5, y: 0, widthPx: 2, heightPx: 2 },
      },
      422,
      'window.x',
    ],
    ['/bags', { deliverableId: NOWHERE, volumeId: NOWHERE }, 404],
    [`/tasks/${NOWHERE}/pause`, {}, 404],
    ['/volumes', { name: 'x' }, 422],
    ['/nothing', {}, 404],
    [`/bench/${NOWHERE}/insert`, { card: 'x' }, 404],
    [`/bench/${NOWHERE}/fault`, { kind: 'fire' }, 422],
    [`/bench/${NOWHERE}/fault`, { kind: 'full' }, 404],
  ]
  for (const [path, data, status, field] of wrong) {
    const response = await request.post(`/api${path}`, { data, headers: { 'Content-Type': 'application/json' } })
    expect(response.headers()['content-type'], path).toContain('application/problem+json')
    const problem = (await response.json()) as Record<string, unknown>
    expect(response.status(), `${path} ${JSON.stringify(problem)}`).toBe(status)
    expect(problem, path).toMatchObject({
      status,
      type: expect.stringMatching(/^\/problems\//),
      title: expect.any(String),
      detail: expect.stringMatching(/^[A-Z].{10,}/s),
    })
    if (field) expect(problem.field, path).toBe(field)
  }
  for (const [query, field] of [
    ['after=x', 'after'],
    ['after=WyJub3ciLCIwIl0', 'after'],
    ['limit=0', 'limit'],
    ['limit=201', 'limit'],
    ['limit=many', 'limit'],
    ['sort=luck', 'sort'],
    ['down=perhaps', 'down'],
    ['colour=red', undefined],
  ] as const) {
    const response = await request.get(`/api/productions?${query}`)
    expect(response.status(), query).toBe(422)
    expect(await response.json(), query).toMatchObject({
      ...(field ? { field } : {}),
      detail: expect.stringMatching(/^[A-Z].{10,}/),
    })
  }
  for (const path of [
    `/productions/${NOWHERE}/plan`,
    `/productions/${NOWHERE}/shots`,
    `/productions/${NOWHERE}/day`,
    `/productions/${NOWHERE}/measured`,
    `/productions/${NOWHERE}/loads`,
    `/productions/${NOWHERE}/copies`,
    `/productions/${NOWHERE}/proxies`,
    `/productions/${NOWHERE}/deliverables`,
    `/productions/${NOWHERE}/clips`,
    `/productions/${NOWHERE}`,
    `/productions/${NOWHERE}/bags`,
    '/productions/x/loads',
    `/clips/${NOWHERE}/picture`,
    `/tasks/${NOWHERE}`,
    '/nothing',
  ]) {
    const response = await request.get(`/api${path}`)
    expect(response.status(), path).toBe(404)
    expect(response.headers()['content-type'], path).toContain('application/problem+json')
    expect(await response.json(), path).toMatchObject({ status: 404, detail: expect.stringMatching(/^[A-Z].{10,}/) })
  }
  const frame = await request.get(`/api/clips/${NOWHERE}/frame?at=0`)
  expect(frame.status()).toBe(404)
  const broken = await request.post('/api/productions', {
    data: Buffer.from('{"title":'),
    headers: { 'Content-Type': 'application/json' },
  })
  expect(broken.status()).toBe(400)
  const form = await request.post('/api/productions', { form: { title: 'x' } })
  expect(form.status()).toBe(415)
})

test('only this machine’s own pages may ask', async ({ baseURL, request }) => {
  const base = baseURL ?? ''
  const host = new URL(base).host
  expect((await rawStatus(base, { Host: 'films.example' })).status).toBe(421)
  expect((await rawStatus(base, { Host: host, Origin: 'http://films.example' })).status).toBe(403)
  expect(
    (await rawStatus(base, { Host: host, 'Content-Type': 'application/json', 'Sec-Fetch-Site': 'cross-site' }, 'POST'))
      .status,
  ).toBe(403)
  expect((await rawStatus(base, { Host: host })).status).toBe(200)
  const policy = (await request.get('/')).headers()['content-security-policy'] ?? ''
  expect(policy).toContain("default-src 'none'")
  expect(policy).toContain("script-src 'self'")
  expect(policy).not.toContain('unsafe')
  for (const path of ['/api/../package.json', '/assets/..%2f..%2fpackage.json', '/%2e%2e/%2e%2e/etc/passwd']) {
    const { body } = await rawStatus(base, { Host: host }, 'GET', path)
    expect(body).not.toContain('"dependencies"')
    expect(body).not.toContain('root:')
  }
})

test('folders are registered by path, marked, and never overlap or belong to the system', async ({ request }) => {
  const root = mkdtempSync(join(tmpdir(), 'yendra-e2e-'))
  const drive = join(root, 'Mudflat')
  mkdirSync(join(drive, 'inner'), { recursive: true })
  const volume = (path: string, name: string) =>
    post(request, '/volumes', { name, kind: 'archive', site: 'house', path, sure: true })
  for (const path of ['/', '/etc', '/usr/lib', '/nowhere/at/all', STATE, join(STATE, 'demo')])
    expect((await volume(path, 'Wrong')).status, path).toBe(422)
  expect((await volume(drive, 'Mudflat')).status).toBe(201)
  expect(readdirSync(join(drive, '.yendra'))).toEqual(['volume.json'])
  expect((await volume(join(drive, 'inner'), 'Inner')).body).toMatchObject({ field: 'path' })
  expect((await volume(drive, 'Mudflat again')).status).toBe(422)
  writeFileSync(join(root, 'file'), '')
  expect((await volume(join(root, 'file'), 'File')).status).toBe(422)
})

test('a drive is known again by its marker, at whatever place it appears', async ({ request }) => {
  const root = mkdtempSync(join(tmpdir(), 'yendra-e2e-'))
  const [slot, other] = [join(root, 'slot'), join(root, 'other slot')]
  mkdirSync(slot)
  const volume = (path: string, name: string) =>
    post(request, '/volumes', { name, kind: 'archive', site: 'house', path, sure: true })
  const placeOf = async (name: string) => (await storage(request)).volumes.find((one) => one.name === name)
  const added = await volume(slot, 'Gravel bar')
  renameSync(slot, other)
  await expect.poll(async () => (await placeOf('Gravel bar'))?.connected).toBe(false)
  // Another drive at the old place is another volume; the old one is found again elsewhere, under its old name.
  mkdirSync(slot)
  expect((await volume(slot, 'Shingle')).status).toBe(201)
  expect(await volume(other, 'Whatever')).toMatchObject({ status: 200, body: { id: added.body?.id } })
  expect(await placeOf('Gravel bar')).toMatchObject({ connected: true, path: other })
  expect(await placeOf('Shingle')).toMatchObject({ connected: true, path: slot })
  // A cloned drive carries the same marker and must not pass for the first.
  cpSync(other, join(root, 'clone'), { recursive: true })
  expect((await volume(join(root, 'clone'), 'Clone')).body).toMatchObject({
    field: 'path',
    detail: expect.stringContaining('copy of that drive'),
  })
})

test('two productions never share a folder', async ({ request }) => {
  expect(await post(request, '/productions', { title: 'steam-bending: ribs' })).toMatchObject({
    status: 422,
    body: { field: 'title', detail: expect.stringContaining('“Steam-bending ribs”') },
  })
})

test('a window outside the picture is refused before anything is rendered', async ({ request }) => {
  const id = await productionId(request, 'Steam-bending ribs')
  const { rows } = (await (await request.get(`/api/productions/${id}/clips?show=film`)).json()) as Page<ClipView>
  const [volumeId] = await volumeIds(request, 'Slipway')
  const answer = await post(request, '/exports', {
    clipId: rows[0]?.id,
    destinationId: 'tall-short',
    volumeId,
    window: { x: 3000, y: 0, widthPx: 1216, heightPx: 2160 },
  })
  expect(answer).toMatchObject({
    status: 422,
    body: { field: 'window', detail: expect.stringContaining('beyond the picture') },
  })
})

test('an address that leads nowhere says so and offers the way back', async ({ page }) => {
  await page.goto('/p/nothing/here')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('There is nothing at this address.')
  await page.getByRole('link', { name: 'All productions', exact: true }).click()
  await expect(page).toHaveURL(/\/$/)
})

test('a copy is played from its volume in pieces, byte for byte', async ({ request }) => {
  const id = await productionId(request, 'Steam-bending ribs')
  const { rows } = (await (await request.get(`/api/productions/${id}/copies`)).json()) as Page<LoadCopies>
  const load = rows.at(-1)
  const copy = load?.copies.find((one) => one.volumeName === 'Tide 1')
  const clips = (await (
    await request.get(`/api/productions/${id}/clips?loadId=${load?.loadId}&show=playable&q=curl0041`)
  ).json()) as Page<ClipView>
  const clip = clips.rows.find((one) => one.name === 'CURL0041.MP4')
  if (!load || !copy || !clip) throw new Error('no copy to play')
  const path = `/api/loads/${load.loadId}/play/${copy.volumeId}/${clip.id}`
  const file = readFileSync(join(volumeFolder('Tide 1'), copy.folder, 'DCIM/100CURLW/CURL0041.MP4'))
  const piece = await request.get(path, { headers: { Range: 'bytes=1000-4999' } })
  expect(piece.status()).toBe(206)
  expect(piece.headers()['content-range']).toBe(`bytes 1000-4999/${file.length}`)
  expect((await piece.body()).equals(file.subarray(1000, 5000))).toBe(true)
  const end = await request.get(path, { headers: { Range: 'bytes=-500' } })
  expect((await end.body()).equals(file.subarray(-500))).toBe(true)
  const whole = await request.get(path)
  expect(whole.status()).toBe(200)
  expect((await whole.body()).equals(file)).toBe(true)
  const [lantern] = await volumeIds(request, 'Lantern')
  expect((await request.get(`/api/loads/${load.loadId}/play/${lantern}/${clip.id}`)).status()).toBe(409)
})

test('every open page is told what changed, by server-sent events', async ({ baseURL, request }) => {
  const stop = new AbortController()
  const response = await fetch(`${baseURL}/api/events`, { signal: stop.signal })
  expect(response.headers.get('content-type')).toBe('text/event-stream')
  const reader = response.body?.getReader()
  if (!reader) throw new Error('no stream')
  await reader.read()
  const told = reader.read()
  await post(request, '/productions', { title: '  Scrubbing the bottom ' })
  const text = new TextDecoder().decode((await told).value)
  expect(text).toMatch(/^data: \{"kind":"changed","topics":\["productions"\]\}\n\n/)
  stop.abort()
  expect(await productionId(request, 'Scrubbing the bottom')).toMatch(/^[0-9a-f-]{36}$/)
})

test('no row that people edit is changed from what it was before somebody else changed it', async ({ request }) => {
  const ask = async <T>(path: string) => (await (await request.get(`/api${path}`)).json()) as T
  const put = async (path: string, data: object, seen?: string) => {
    const headers = { 'Content-Type': 'application/json', ...(seen !== undefined && { 'If-Match': `"${seen}"` }) }
    return (await request.put(`/api${path}`, { data, headers })).status()
  }
  const launch = await productionId(request, 'Launch day')
  const gear = () => ask<GearView>('/gear')
  const locker = () => ask<LockerView>('/locker')
  /** The same one each time, whatever it is called by now. */
  const first = async <T extends { readonly id: string }>(rows: Promise<readonly T[]>): Promise<T> => {
    const [row] = [...(await rows)].sort((a, b) => a.id.localeCompare(b.id))
    if (!row) throw new Error('There is no such row')
    return row
  }
  const shots = () => ask<readonly ShotView[]>(`/productions/${launch}/shots`)
  if ((await shots()).length === 0)
    await post(request, `/productions/${launch}/shots`, { shots: [{ name: 'Rope' }], passes: 1 })
  interface Row {
    readonly version: string
    readonly path: string
    readonly body: (name: string) => object
  }
  const rows: readonly (() => Promise<Row>)[] = [
    async () => {
      const { id, version, name: _, modes: _modes, away: _away, holds: _holds, ...rest } = await first(gear().then(({ cameras }) => cameras)) // prettier-ignore
      return { version, path: `/cameras/${id}`, body: (name) => ({ ...rest, name }) }
    },
    async () => {
      const { id, version, away: _, name: _name, ...rest } = await first(gear().then(({ cameras }) => cameras.flatMap(({ modes }) => modes))) // prettier-ignore
      return { version, path: `/modes/${id}`, body: (name) => ({ ...rest, name }) }
    },
    async () => {
      const { id, version, capacityBytes, bytesPerSecond } = await first(gear().then(({ cards }) => cards))
      return { version, path: `/cards/${id}`, body: (name) => ({ name, capacityBytes, bytesPerSecond }) }
    },
    async () => {
      const { id, version, kind, site, medium } = await first(locker().then(({ volumes }) => volumes))
      return { version, path: `/volumes/${id}/about`, body: (name) => ({ name, kind, site, medium }) }
    },
    async () => {
      const { id, version, kind } = await first(locker().then(({ sites }) => sites))
      return { version, path: `/sites/${id}`, body: (name) => ({ name, kind }) }
    },
    async () => {
      const { id, version, ruleId, raw } = await first(locker().then(({ clients }) => clients))
      return { version, path: `/clients/${id}`, body: (name) => ({ name, ruleId, raw }) }
    },
    async () => {
      const { id, version } = await first(locker().then(({ readers }) => readers))
      return { version, path: `/readers/${id}`, body: (name) => ({ name }) }
    },
    async () => {
      const { id, version, client, shootOn } = await ask<ProductionView>(`/productions/${launch}`)
      return { version, path: `/productions/${id}`, body: (title) => ({ title, client, shootOn: shootOn ?? '' }) }
    },
    async () => {
      const { id, version, cameraId, deliverables, notes } = await first(shots())
      return { version, path: `/shots/${id}`, body: (name) => ({ name, cameraId, deliverables, notes }) }
    },
    async () => {
      const { version, shootOn, timeZone, calls } = await ask<DayView>(`/productions/${launch}/day`)
      return { version, path: `/productions/${launch}/day`, body: (place) => ({ shootOn, timeZone, place, calls }) }
    },
    async () => {
      const { rules, rulesVersion } = await gear()
      return { version: rulesVersion, path: '/rules', body: (name) => ({ ...rules, spareCards: name.length % 7 }) }
    },
  ]
  for (const [place, read] of rows.entries()) {
    const seen = await read()
    const what = `${seen.path} (${place})`
    // Two windows that saw the same keep it in one moment: one of them.
    const both = await Promise.all(['Kept one', 'Kept two'].map((name) => put(seen.path, seen.body(`${name} ${place}`), seen.version))) // prettier-ignore
    expect(both.sort(), what).toEqual([204, 409])
    const now = await read()
    expect(now.version, what).not.toBe(seen.version)
    expect(await put(seen.path, seen.body('Kept late'), seen.version), what).toBe(409)
    expect(await read(), what).toMatchObject({ version: now.version })
    expect(await put(now.path, now.body(`Kept then ${place}`), now.version), what).toBe(204)
    // Who does not say what was seen is not asked.
    expect(await put(now.path, now.body(`Kept anyway ${place}`)), what).toBe(204)
  }
})
