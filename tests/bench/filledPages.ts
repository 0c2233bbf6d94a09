import { chromium, type Browser } from '@playwright/test'
import type { Page } from '../../contract/page'
import type { ProductionView } from '../../contract/productions'
import { openDatabase, type Db } from '../../server/db/connection'
import { startStation } from '../clear/station'
import { fill, type Fill } from './fill'

/** A browser, and the application on a filled database. */
export interface FilledPages {
  readonly browser: Browser
  readonly origin: string
  /** The newest production. */
  readonly productionId: string
}

/** Lends a browser and the pages of a station that was filled; pictures are no part of what is measured. */
export async function onFilledPages<T>(
  filled: Fill,
  measure: (pages: FilledPages) => Promise<T>,
  more: (db: Db) => Promise<void> = () => Promise.resolve(),
): Promise<T> {
  const station = await startStation()
  const browser = await chromium.launch({
    executablePath: '/usr/bin/chromium',
    args: ['--no-sandbox', '--disable-gpu'],
  })
  try {
    const db = await openDatabase(station.databaseUrl)
    await fill(db, filled)
    await db.updateTable('mediaFile').set({ pictureMade: false, hasPicture: false }).execute()
    await more(db)
    await db.destroy()
    const { id } = (await station.get<Page<ProductionView>>('/productions')).rows[0] ?? { id: '' }
    return await measure({ browser, origin: new URL(station.base).origin, productionId: id })
  } finally {
    await browser.close()
    await station.stop()
  }
}
