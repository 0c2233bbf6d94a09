import { randomBytes } from 'node:crypto'
import { mkdirSync, readFileSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import type { Page } from '../../contract/page'
import type { LoadView } from '../../contract/cards'
import type { StorageView } from '../../contract/storage'
import { copyTree } from '../../server/engine/copy/copy'
import { FolderMedium } from '../../server/engine/medium/folder'
import { listingDigest, walk } from '../../server/engine/medium/walk'
import { startStation, type Station } from '../clear/station'
import { chill, type Figure } from './copyBench'

const FILES = 20_000
const FILE_BYTES = 20_000
const PAGES = ['/productions', '/productions/:id/loads', '/productions/:id/copies', '/tasks']

/** A card of 20 000 small files through the whole application, against the engine alone with the same files. */
export async function appFigures(scratch: string): Promise<Figure[]> {
  const card = join(scratch, 'card')
  for (let at = 0; at < FILES; at += 1) {
    const folder = join(card, 'DCIM', `${100 + Math.floor(at / 500)}CURLW`)
    if (at % 500 === 0) mkdirSync(folder, { recursive: true })
    writeFileSync(join(folder, `CURL${String(at).padStart(5, '0')}.XML`), randomBytes(FILE_BYTES))
  }
  chill(card)
  const engine = await engineAlone(card, join(scratch, 'one'), join(scratch, 'two'))
  chill(card)
  return throughTheApplication(card, scratch, engine)
}

/** Listing, copying to two volumes and proving, in seconds. */
async function engineAlone(card: string, ...roots: string[]): Promise<number> {
  for (const root of roots) mkdirSync(root)
  const begun = performance.now()
  const source = new FolderMedium(card)
  const entries = await walk(source)
  listingDigest(entries)
  const wantedBy = new Set(roots)
  await copyTree({
    source,
    destinations: roots.map((root) => ({
      id: root,
      medium: new FolderMedium(root),
      folder: Buffer.from('card'),
      parts: Buffer.from('parts'),
    })),
    folders: entries.filter((entry) => entry.kind === 'folder').map((entry) => entry.path),
    files: entries.flatMap((entry, id) => (entry.kind === 'file' ? [{ ...entry, id, wantedBy }] : [])),
    gate: () => Promise.resolve(),
    onBytes: () => undefined,
    report: () => Promise.resolve(),
  })
  return (performance.now() - begun) / 1000
}

async function throughTheApplication(card: string, scratch: string, engine: number): Promise<Figure[]> {
  const station = await startStation()
  try {
    const made = async (path: string, body: object) => String((await station.post(path, body)).body.id)
    const productionId = await made('/productions', { title: 'Many small files' })
    const readerId = await made('/readers', { name: 'slot', path: card, sure: true })
    const volumeIds = []
    for (const name of ['Slipway', 'Tide']) {
      mkdirSync(join(scratch, name))
      volumeIds.push(
        await made('/volumes', { name, kind: 'archive', site: 'house', path: join(scratch, name), sure: true }),
      )
    }
    const slow = watchPages(station, productionId)
    const begun = performance.now()
    await done(station, `/readers/${readerId}/scan`, { productionId, label: 'Curlew A' })
    const load = (await station.get<Page<LoadView>>(`/productions/${productionId}/loads`)).rows[0]
    await done(station, `/loads/${load?.id}/copies`, { volumeIds })
    const whole = (performance.now() - begun) / 1000
    const slowest = await slow()
    const asked = performance.now()
    await station.get<StorageView>(`/loads/${load?.id}/plan?volumeIds=${volumeIds.join(',')}`)
    const plan = performance.now() - asked
    const mb = Math.max(peakMb(station.worker().pid ?? 0), peakMb(station.httpPid()))
    return [
      {
        name: '20 000 files through the application, against the engine',
        ours: whole,
        theirs: engine,
        unit: 's',
        ratio: whole / engine,
        goal: 'at most 1.3',
      },
      {
        name: 'slowest page meanwhile (19 of 20)',
        ours: slowest,
        theirs: 200,
        unit: 'ms',
        ratio: slowest / 200,
        goal: 'under 1',
      },
      {
        name: 'plan for copying them again',
        ours: plan,
        theirs: 3000,
        unit: 'ms',
        ratio: plan / 3000,
        goal: 'under 1',
      },
      {
        name: 'peak memory of worker and HTTP process',
        ours: mb,
        theirs: 300,
        unit: 'MB',
        ratio: mb / 300,
        goal: 'under 1',
      },
    ]
  } finally {
    await station.stop()
  }
}

async function done(station: Station, path: string, body: object): Promise<void> {
  const end = await station.task(path, body)
  if (end.state !== 'done') throw new Error(`${path}: ${end.sentence}`)
}

/** Asks pages again and again; afterwards says how long all but the slowest twentieth took at most, in milliseconds. */
function watchPages(station: Station, productionId: string): () => Promise<number> {
  const times: number[] = []
  let watching = true
  const watch = (async () => {
    for (let turn = 0; watching; turn += 1) {
      const begun = performance.now()
      await station.get((PAGES[turn % PAGES.length] ?? '').replace(':id', productionId))
      times.push(performance.now() - begun)
      await new Promise((resolve) => setTimeout(resolve, 250))
    }
  })()
  return async () => {
    watching = false
    await watch
    return times.sort((a, b) => a - b)[Math.floor(times.length * 0.95)] ?? 0
  }
}

const peakMb = (pid: number) =>
  Number(/VmHWM:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))?.[1] ?? 0) / 1024
