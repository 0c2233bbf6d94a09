import { execFileSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { availableParallelism } from 'node:os'
import { join } from 'node:path'
import { chromium } from '@playwright/test'
import { EVENTS_PATH } from '../../contract/api'
import type { LoadView } from '../../contract/cards'
import type { Page } from '../../contract/page'
import { ownClip, startStation, type Station } from '../clear/station'
import type { Figure } from './copyBench'

const CLIPS = 500
/** As many programs side by side as the look has. */
const LANES = String(Math.min(4, availableParallelism()))

const seconds = async (work: () => unknown) => {
  const begun = performance.now()
  await work()
  return (performance.now() - begun) / 1000
}

/**
 * A card of 500 clips: until its table is there, and its pictures, against the plain programs; and the strip under the
 * pointer.
 */
export async function reviewFigures(scratch: string): Promise<Figure[]> {
  const card = join(scratch, 'reviewed')
  const folder = join(card, 'DCIM/100CURLW')
  mkdirSync(folder, { recursive: true })
  for (let at = 1; at <= CLIPS; at += 1) {
    const name = `CURL${String(at).padStart(4, '0')}.MP4`
    writeFileSync(join(folder, name), ownClip(name))
  }
  const loop = (script: string) =>
    execFileSync(
      'sh',
      ['-ec', `find "$1" -name '*.MP4' -print0 | xargs -0 -P ${LANES} -n 1 sh -c '${script}' sh`, 'sh', folder],
      {
        stdio: ['ignore', 'ignore', 'inherit'],
      },
    )
  // Once for nobody, so that both find the clips in memory.
  loop('exec cat "$1" >/dev/null')
  const plain = async () => ({
    probes: await seconds(() =>
      loop('exec ffprobe -hide_banner -loglevel error -show_streams -show_format -of json "$1" >/dev/null'),
    ),
    pictures: await seconds(() =>
      loop(
        'exec ffmpeg -nostdin -loglevel error -ss 0.667 -i "$1" -frames:v 1 -vf scale=480:-2 -f image2pipe -c:v mjpeg -q:v 4 pipe:1 >/dev/null',
      ),
    ),
  })
  const before = await plain()
  const { table, all, strip } = await withYendra(card)
  // Before and after, since the machine itself may be quicker in one minute than in the next.
  const after = await plain()
  const figure = (name: string, ours: number, theirs: number, unit: Figure['unit'], goal: string): Figure => ({
    ...{ name, ours, theirs, unit, ratio: ours / theirs, goal },
  })
  const mean = (kind: keyof typeof before) => (before[kind] + after[kind]) / 2
  return [
    figure(
      `${CLIPS} clips read until their table is there, against ffprobe`,
      table,
      mean('probes'),
      's',
      'at most 1.1',
    ),
    figure(`pictures of ${CLIPS} clips, against ffmpeg`, all - table, mean('pictures'), 's', 'at most 1.2'),
    figure('longest task while the pointer moves over the filmstrip', strip, 50, 'ms', 'at most 1'),
  ]
}

async function withYendra(card: string): Promise<{ table: number; all: number; strip: number }> {
  const station = await startStation()
  try {
    const productionId = String((await station.post('/productions', { title: 'Many clips' })).body.id)
    const readerId = String((await station.post('/readers', { name: 'slot', path: card, sure: true })).body.id)
    const { table, all } = await looked(station, productionId, readerId)
    return { table, all, strip: await longestUnderPointer(station, productionId) }
  } finally {
    await station.stop()
  }
}

/** Seconds until every clip stands in the table, and until every picture was taken. */
async function looked(
  station: Station,
  productionId: string,
  readerId: string,
): Promise<{ table: number; all: number }> {
  const told = (await fetch(station.base + EVENTS_PATH)).body?.getReader()
  if (!told) throw new Error('There are no news.')
  const begun = performance.now()
  const since = () => (performance.now() - begun) / 1000
  const order = await station.post(`/readers/${readerId}/scan`, { productionId, label: 'Curlew A' })
  let table = 0
  // As a page does: it asks when it is told, since asking all the time takes away from the work that is timed.
  while (table === 0) {
    const { value, done } = await told.read()
    if (done) throw new Error('The news ended.')
    if (!Buffer.from(value).includes('"cards"')) continue
    const [load] = (await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)).rows
    if (load?.clips === CLIPS) table = since()
  }
  await told.cancel()
  const end = await station.ended(String(order.body.taskId))
  if (end.state !== 'done') throw new Error(end.sentence ?? 'the look failed')
  return { table, all: since() }
}

/** The longest task of the page while the pointer moves along the strip of a clip, in milliseconds. */
async function longestUnderPointer(station: Station, productionId: string): Promise<number> {
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  try {
    const page = await browser.newPage({ viewport: { width: 1280, height: 800 } })
    await page.goto(`${new URL(station.base).origin}/p/${productionId}/cards/review`)
    await page.waitForLoadState('networkidle')
    const option = page.getByRole('option').first()
    const box = await option.boundingBox()
    if (!box) throw new Error('no clip in the list')
    await page.evaluate(() => {
      const seen: number[] = []
      Object.assign(window, { yendraTasks: seen })
      new PerformanceObserver((list) => list.getEntries().forEach((entry) => seen.push(entry.duration))).observe({
        type: 'longtask',
      })
    })
    for (let turn = 0; turn < 3; turn += 1)
      for (let step = 0; step <= 40; step += 1)
        await page.mouse.move(box.x + (box.width * step) / 40, box.y + box.height / 2 + turn)
    await page.waitForTimeout(300)
    return await page.evaluate(() => Math.max(0, ...(window as unknown as { yendraTasks: number[] }).yendraTasks))
  } finally {
    await browser.close()
  }
}
