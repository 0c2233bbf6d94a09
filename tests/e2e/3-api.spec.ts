import { mkdirSync, mkdtempSync, readdirSync, writeFileSync } from 'node:fs'
import { request as httpRequest } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { expect, test } from '@playwright/test'
import { post, productionId, STATE, volumeIds } from './bench'

/** Asks with headers that a browser would not let through. */
function rawStatus(base: string, headers: Record<string, string>, method = 'GET', path = '/api/productions'): Promise<{ status: number; body: string }> {
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
    ['/productions', { title: '' }, 422, 'title'], ['/productions', { title: 'x', extra: 1 }, 422], ['/productions', { title: 7 }, 422, 'title'],
    [`/productions/${NOWHERE}/plans`, {}, 404], [`/readers/${NOWHERE}/scan`, { productionId: NOWHERE }, 404], ['/readers', { name: 'a', path: 'relative' }, 422, 'path'],
    [`/loads/${NOWHERE}/copies`, { volumeIds: [NOWHERE] }, 404], [`/loads/x/copies`, {}, 404], [`/loads/${NOWHERE}/spot-plays`, {}, 404], [`/loads/${NOWHERE}/formatted`, {}, 404],
    ['/proxies', { clipIds: [], volumeId: NOWHERE }, 422, 'clipIds'], ['/proxies', { clipIds: [NOWHERE], volumeId: NOWHERE }, 409],
    ['/exports', { clipId: NOWHERE, destinationId: 'no', volumeId: NOWHERE, window: { x: 0, y: 0, widthPx: 2, heightPx: 2 } }, 422, 'destinationId'],
    ['/exports', { clipId: NOWHERE, destinationId: 'tall-short', volumeId: NOWHERE, window: { x: 0.5, y: 0, widthPx: 2, heightPx: 2 } }, 422, 'window.x'],
    ['/bags', { deliverableId: NOWHERE, volumeId: NOWHERE }, 404], [`/tasks/${NOWHERE}/pause`, {}, 404], ['/volumes', { name: 'x' }, 422], ['/nothing', {}, 404],
    [`/bench/${NOWHERE}/insert`, { card: 'x' }, 404], [`/bench/${NOWHERE}/fault`, { kind: 'fire' }, 404],
  ]
  for (const [path, data, status, field] of wrong) {
    const response = await request.post(`/api${path}`, { data, headers: { 'Content-Type': 'application/json' } })
    expect(response.headers()['content-type'], path).toContain('application/problem+json')
    const problem = (await response.json()) as Record<string, unknown>
    expect(response.status(), `${path} ${JSON.stringify(problem)}`).toBe(status)
    expect(problem, path).toMatchObject({ status, type: expect.stringMatching(/^\/problems\//), title: expect.any(String), detail: expect.stringMatching(/^[A-Z].{10,}/s) })
    if (field) expect(problem.field, path).toBe(field)
  }
  const broken = await request.post('/api/productions', { data: Buffer.from('{"title":'), headers: { 'Content-Type': 'application/json' } })
  expect(broken.status()).toBe(400)
  const form = await request.post('/api/productions', { form: { title: 'x' } })
  expect(form.status()).toBe(415)
})

test('only this machine’s own pages may ask', async ({ baseURL, request }) => {
  const base = baseURL ?? ''
  const host = new URL(base).host
  expect((await rawStatus(base, { Host: 'films.example' })).status).toBe(421)
  expect((await rawStatus(base, { Host: host, Origin: 'http://films.example' })).status).toBe(403)
  expect((await rawStatus(base, { Host: host, 'Content-Type': 'application/json', 'Sec-Fetch-Site': 'cross-site' }, 'POST')).status).toBe(403)
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
  const volume = (path: string, name: string) => post(request, '/volumes', { name, kind: 'archive', site: 'house', path })
  for (const path of ['/', '/etc', '/usr/lib', '/nowhere/at/all', STATE, join(STATE, 'demo')]) expect((await volume(path, 'Wrong')).status, path).toBe(422)
  expect((await volume(drive, 'Mudflat')).status).toBe(201)
  expect(readdirSync(join(drive, '.yendra'))).toEqual(['volume.json'])
  expect((await volume(join(drive, 'inner'), 'Inner')).body).toMatchObject({ field: 'path' })
  expect((await volume(drive, 'Mudflat again')).status).toBe(422)
  writeFileSync(join(root, 'file'), '')
  expect((await volume(join(root, 'file'), 'File')).status).toBe(422)
})

test('a window outside the picture is refused before anything is rendered', async ({ request }) => {
  const id = await productionId(request, 'Steam-bending ribs')
  const { masters } = (await (await request.get(`/api/productions/${id}/exports`)).json()) as { masters: { clipId: string }[] }
  const [volumeId] = await volumeIds(request, 'Slipway')
  const answer = await post(request, '/exports', { clipId: masters[0]?.clipId, destinationId: 'tall-short', volumeId, window: { x: 3000, y: 0, widthPx: 1216, heightPx: 2160 } })
  expect(answer).toMatchObject({ status: 422, body: { field: 'window', detail: expect.stringContaining('beyond the picture') } })
})

test('an address that leads nowhere says so and offers the way back', async ({ page }) => {
  await page.goto('/p/nothing/here')
  await expect(page.getByRole('heading', { level: 1 })).toHaveText('There is nothing at this address.')
  await page.getByRole('link', { name: 'All productions', exact: true }).click()
  await expect(page).toHaveURL(/\/$/)
})
