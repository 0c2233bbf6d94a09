import { mkdirSync, readdirSync, renameSync, symlinkSync } from 'node:fs'
import { join } from 'node:path'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { cardsApi } from '../../contract/cards'
import { copiesApi } from '../../contract/copies'
import { addressOf } from '../../contract/endpoint'
import { clearWorld, startStation, type Station, type World } from '../clear/station'

const KEY = 'a key that nobody guesses'

describe('an access key', () => {
  let station: Station
  let origin = ''
  beforeAll(async () => {
    station = await startStation({ YENDRA_KEY: KEY })
    origin = new URL(station.base).origin
  })
  afterAll(() => station.stop())

  const ask = (path: string, headers: Record<string, string> = {}) =>
    fetch(origin + path, { headers, redirect: 'manual' })

  it('is shut for the API, pictures, events and pages, and says how to get in', async () => {
    const id = '00000000-0000-4000-8000-000000000000'
    for (const path of ['/api/productions', addressOf(cardsApi.picture, { id }), '/api/events', '/assets/any.js']) {
      const response = await ask(path)
      expect(response.status, path).toBe(401)
      expect(response.headers.get('content-type')).toContain('application/problem+json')
      expect(await response.text()).toContain('start command')
    }
    expect((await station.post('/productions', { title: 'x' })).status).toBe(401)
    const page = await ask('/')
    expect(page.status).toBe(401)
    expect(await page.text()).toContain('An access key is needed')
    expect((await ask('/?key=a%20key%20that%20somebody%20tries')).status).toBe(401)
  })

  it('opens with the printed address once, and stays open by a cookie that no script reads', async () => {
    const entered = await ask(`/p/x/cards?key=${encodeURIComponent(KEY)}&load=1`)
    expect(entered.status).toBe(303)
    expect(entered.headers.get('location')).toBe('/p/x/cards?load=1')
    const cookie = entered.headers.get('set-cookie') ?? ''
    expect(cookie).toMatch(/HttpOnly/)
    expect(cookie).toMatch(/SameSite=Strict/)
    const known = { cookie: cookie.split(';')[0] ?? '' }
    expect((await ask('/api/productions', known)).status).toBe(200)
    expect((await ask('/', known)).status).toBe(200)
    expect((await ask('/api/productions', { cookie: `${known.cookie}x` })).status).toBe(401)
  })

  it('leads nowhere but here, whatever address carries the key', async () => {
    for (const path of ['//evil.example/x', '///evil.example/x', '/%5Cevil.example/x', '/.//evil.example/x']) {
      const { headers } = await ask(`${path}?key=${encodeURIComponent(KEY)}`)
      const location = headers.get('location') ?? ''
      expect(new URL(location, origin).origin, `${path}: ${location}`).toBe(origin)
    }
  })
})

describe('a start without an access key', () => {
  let station: Station
  let world: World
  beforeAll(async () => {
    station = await startStation()
    world = await clearWorld(station)
  })
  afterAll(() => station.stop())

  it('is shut for other sites, whatever they ask for', async () => {
    const [clip] = await world.clips()
    const frame = `${new URL(station.base).origin}${addressOf(cardsApi.frame, { id: clip?.id ?? '' }, { at: 0.5 })}`
    for (const site of ['cross-site', 'same-site'])
      expect((await fetch(frame, { headers: { 'sec-fetch-site': site } })).status).toBe(403)
    const ours = await fetch(frame, { headers: { 'sec-fetch-site': 'same-origin' } })
    expect(ours.status).toBe(200)
    expect(Buffer.from(await ours.arrayBuffer()).subarray(0, 2)).toEqual(Buffer.from([0xff, 0xd8]))
  })

  it('keeps answers out of caches, and compresses what is long', async () => {
    const response = await fetch(`${station.base}/productions`)
    expect(response.headers.get('cache-control')).toBe('no-store')
    const page = await fetch(new URL(station.base).origin)
    expect(page.headers.get('permissions-policy')).toContain('camera=()')
    expect(page.headers.get('content-security-policy')).toContain("default-src 'none'")
    const script = readdirSync('dist/web/assets').find((name) => name.endsWith('.js'))
    const asset = await fetch(`${new URL(station.base).origin}/assets/${script}`)
    expect(asset.headers.get('content-encoding')).toMatch(/gzip|br|deflate/)
  })

  it('gives a file in pieces, and says so when a piece does not lie in it', async () => {
    const { loadId } = await world.copies()
    const play = addressOf(copiesApi.play, {
      id: loadId,
      volumeId: world.volumeIds[0],
      clipId: (await world.clips('playable'))[0]?.id ?? '',
    })
    const url = `${new URL(station.base).origin}${play}`
    expect((await fetch(url, { headers: { range: 'bytes=0-9' } })).status).toBe(206)
    const past = await fetch(url, { headers: { range: 'bytes=999999999-' } })
    expect(past.status).toBe(416)
    expect(past.headers.get('content-range')).toMatch(/^bytes \*\/\d+$/)
    // A link that is put in the way later is not followed, even to the same bytes.
    const folder = join(world.slipway, world.title)
    renameSync(folder, join(world.root, 'moved'))
    symlinkSync(join(world.root, 'moved'), folder)
    expect((await fetch(url)).status).toBe(409)
  })

  it('does not follow a card whose folder became a link', async () => {
    const dcim = join(world.card, 'DCIM')
    mkdirSync(join(world.root, 'off the card'))
    renameSync(dcim, join(world.root, 'off the card/DCIM'))
    symlinkSync(join(world.root, 'off the card/DCIM'), dcim)
    await world.look()
    expect((await world.clips()).filter((clip) => clip.onCard)).toEqual([])
  })
})
