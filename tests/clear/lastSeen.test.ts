import { copyFileSync, cpSync, readFileSync, rmSync, statSync, utimesSync, writeFileSync } from 'node:fs'
import { basename, join } from 'node:path'
import type { ProductionView } from '../../contract/productions'
import { describe, expect, it } from 'vitest'
import type { ReaderView } from '../../contract/cards'
import { openDatabase } from '../../server/db/connection'
import { FolderMedium } from '../../server/engine/medium/folder'
import { compareCard } from '../../server/media/compareCard'
import { more } from '../more'
import { canMount, loopDrive, putIn, Slot, takeOut } from './mounts'
import { cleared, CLIPS, expectNotClear, FILMED_AT, slotWorld } from './slotWorld'
import { clearWorld, ownClip, until, type Station } from './station'
import { stationOfFile } from './stationOfFile'

let station: Station
stationOfFile((one) => (station = one))

/** As on exFAT, which tells no file from another. */
async function forgetStamps(): Promise<void> {
  const db = await openDatabase(station.databaseUrl)
  await db.deleteFrom('cardStamp').execute()
  await db.destroy()
}

describe.skipIf(!canMount)('a card that was seen with something new, and taken out (needs root to mount)', () => {
  it('gets no yes before what was new on it is known', async () => {
    const world = await cleared(await slotWorld(station))
    writeFileSync(join(world.card, 'DCIM/100CURLW/CURL0045.MP4'), ownClip('one more'))
    await expectNotClear(world, /has 1 new clip/)
    world.slot.out()
    await expectNotClear(world, /has 1 new clip.*Its card is in no reader: put it in first/)
    world.slot.putIn(world.image)
    await world.look()
    await world.copy()
    await world.play()
    expect((await world.copies()).clear.clear).toBe(true)
    world.slot.out()
    expect((await world.copies()).clear.clear).toBe(true)
  })

  more(
    'gets none either where a file was rewritten with its size and time kept, in this stay or the next',
    async () => {
      const world = await cleared(await slotWorld(station))
      const path = join(world.card, 'DCIM/100CURLW', CLIPS[0])
      const before = readFileSync(path)
      const { size } = statSync(path)
      const after = Buffer.from(before)
      after.fill(0x21, size - 1_000_000, size - 999_000)
      const write = (bytes: Buffer) => {
        writeFileSync(path, bytes)
        utimesSync(path, FILMED_AT, FILMED_AT)
      }
      write(after)
      await expectNotClear(world, /rewritten/)
      // The next step says so, too: something may lie there that no copy has.
      const next = async () => (await station.get<ProductionView>(`/productions/${world.productionId}`)).next.sentence
      expect(await next()).toContain('whole: files on it were rewritten')
      world.slot.out()
      await expectNotClear(world, /rewritten.*Its card is in no reader: put it in first/)
      world.slot.putIn(world.image)
      // One place in each clip mostly misses it.
      await expectNotClear(world, /rewritten.*read the card whole|1 of 4 clips differs/)
      const read = () => station.task(`/loads/${loadId}/card/read`)
      const { loadId } = await world.copies()
      expect((await read()).troubles).toEqual([expect.stringContaining(CLIPS[0])])
      await expectNotClear(world, /1 of 4 files differs/)
      await expectNotClear(world, /1 of 4 files differs/)
      world.slot.change(world.image)
      await expectNotClear(world, /read the card whole|1 of 4 clips differs/)
      // As it was: read whole, it is the card again.
      write(before)
      expect((await read()).troubles).toEqual([])
      const { clear } = await world.copies()
      expect(clear.clear, clear.sentence).toBe(true)
    },
  )

  more(
    'gets it as soon as it was read whole and is what was copied, whatever was seen of it a moment before',
    async () => {
      const world = await cleared(await slotWorld(station))
      const path = join(world.card, 'DCIM/100CURLW', CLIPS[0])
      const before = readFileSync(path)
      const write = (bytes: Buffer) => {
        writeFileSync(path, bytes)
        utimesSync(path, FILMED_AT, FILMED_AT)
      }
      // All but the ends, so that every place of it differs.
      write(Buffer.from(before).fill(0x21, 70_000, before.length - 70_000))
      world.slot.change(world.image)
      await expectNotClear(world, /1 of 4 clips differs/)
      write(before)
      const { loadId } = await world.copies()
      const read = async () => {
        expect((await station.task(`/loads/${loadId}/card/read`)).troubles).toEqual([])
        return (await world.copies()).clear
      }
      const first = await read()
      // A busy machine may notice only while the card is read that it was written: that reading rightly says nothing of
      // it.
      const clear = first.sentence.includes('were rewritten') ? await read() : first
      expect(clear.clear, clear.sentence).toBe(true)
    },
  )

  more('gets none where a file was rewritten while nobody looked, in the reader or elsewhere', async () => {
    const world = await cleared(await slotWorld(station))
    const write = (root: string) => {
      const path = join(root, 'DCIM/100CURLW', CLIPS[2])
      const bytes = readFileSync(path)
      writeFileSync(path, bytes.fill(bytes[0] === 0 ? 0x22 : 0x21, bytes.length - 900_000, bytes.length - 899_990))
      utimesSync(path, FILMED_AT, FILMED_AT)
    }
    station.worker().kill('SIGKILL')
    write(world.card)
    await station.startWorker()
    await expectNotClear(world, /rewritten|not the card that was copied/)
    // As it was copied, in another inode: only reading it whole tells.
    const [from, to] = [world.mirror(world.slipway), world.card].map((root) => join(root, 'DCIM/100CURLW', CLIPS[2]))
    copyFileSync(from ?? '', to ?? '')
    utimesSync(to ?? '', FILMED_AT, FILMED_AT)
    const { loadId } = await world.copies()
    expect((await station.task(`/loads/${loadId}/card/read`)).troubles).toEqual([])
    expect((await world.copies()).clear.clear).toBe(true)
    // Put in again, and its observer started again, it is what it was.
    world.slot.change(world.image)
    expect((await world.copies()).clear.clear).toBe(true)
    world.slot.out()
    const elsewhere = new Slot(join(station.root, 'written elsewhere'), world.image)
    write(elsewhere.at)
    elsewhere.end()
    world.slot.putIn(world.image)
    await expectNotClear(world, /rewritten|not the card that was copied/)
  })

  more('that only its ends bear out is compared with its copies as soon as they are proved again', async () => {
    const world = await cleared(await slotWorld(station))
    world.slot.out()
    // Nothing that was proved lies there as it was: of the next card only the ends can be compared.
    for (const drive of [world.slipway, world.tide])
      for (const name of CLIPS)
        utimesSync(
          join(world.mirror(drive), 'DCIM/100CURLW', name),
          FILMED_AT,
          new Date(FILMED_AT.getTime() + 3_600_000),
        )
    await expectNotClear(world, /Slipway.*Copy again[^]*Tide.*Copy again/)
    await forgetStamps()
    world.slot.putIn(world.other)
    await expectNotClear(world, /Copy again/)
    // What lies on the drives is what was proved: the copy is whole without a byte of this card.
    await world.copy()
    await world.play()
    await expectNotClear(
      world,
      /of 4 clips differs?: it is not the card that was copied|not compared with what was copied yet/,
    )
    // A place that is drawn at the ends of a clip is equal: not every clip differs each time.
    await until(
      () => world.copies(),
      ({ clear }) => clear.reasons.some(({ sentence }) => /of 4 clips differs?:/.test(sentence)),
    )
    world.slot.change(world.image)
    const { clear } = await until(
      () => world.copies(),
      (one) => one.clear.clear,
    )
    expect(clear.reasons.map(({ sentence }) => sentence).join()).toContain(
      '4 of 4 clips were compared at one place with',
    )
  })

  more('keeps what was last seen of it, whatever a card with the same ends looks like meanwhile', async () => {
    const world = await cleared(await slotWorld(station))
    writeFileSync(join(world.card, 'DCIM/100CURLW/CURL0045.MP4'), ownClip('one more'))
    await expectNotClear(world, /has 1 new clip/)
    world.slot.out()
    const names = [world.slipway, world.tide]
    for (const drive of names) takeOut(drive)
    await forgetStamps()
    world.slot.putIn(world.other)
    await until(
      async () => {
        await world.copies()
        return (await station.get<ReaderView[]>('/readers')).find((row) => row.id === world.readerId)
      },
      (reader) => reader?.state === 'card' && reader.difference === null && reader.loadId !== null,
    )
    world.slot.out()
    for (const drive of names) putIn(station.root, basename(drive), drive)
    await until(
      () => world.copies(),
      ({ copies }) => copies.length === 2 && copies.every((copy) => copy.connected),
    )
    await expectNotClear(world, /has 1 new clip.*Its card is in no reader: put it in first/)
  })

  more('gets none from the moment when copying it met other bytes than were proved', async () => {
    const world = await cleared(await slotWorld(station))
    const neap = loopDrive(station.root, 'neap')
    const made = await station.post('/volumes', {
      ...{ name: 'Neap', kind: 'archive', site: 'aunt’s flat', path: neap, sure: true },
    })
    world.slot.out()
    const elsewhere = new Slot(join(station.root, 'elsewhere'), world.image)
    const path = join(elsewhere.at, 'DCIM/100CURLW', CLIPS[1])
    const bytes = readFileSync(path)
    writeFileSync(path, bytes.fill(0x21, bytes.length - 1_000_000, bytes.length - 999_990))
    utimesSync(path, FILMED_AT, FILMED_AT)
    elsewhere.end()
    // A draw of one place in each clip will hardly see it; the copy reads all of it.
    await forgetStamps()
    world.slot.putIn(world.image)
    const copied = await world.copy({ volumeIds: [made.body.id] })
    expect([copied.sentence, ...copied.troubles].join()).toMatch(
      /CURL0042\.MP4 .*not what was copied before|not the card that was copied/,
    )
    await expectNotClear(world, /are not what was copied: read the card whole|rewritten|not the card that was copied/)
    world.slot.out()
    await expectNotClear(world, /put it in first/)
  })

  more('may be copied and scanned where nothing of it was proved yet', async () => {
    const world = await slotWorld(station)
    await world.look()
    const path = join(world.card, 'DCIM/100CURLW', CLIPS[0])
    writeFileSync(path, readFileSync(path))
    utimesSync(path, FILMED_AT, FILMED_AT)
    await world.copies()
    expect((await world.copy()).sentence).toContain('All 4 files proved')
  })
})

describe('a card that differs in few places', () => {
  more('stays another one however often it is compared, and the right one stays right', async () => {
    const world = await clearWorld(station, CLIPS)
    const other = join(world.root, 'other')
    cpSync(world.card, other, { recursive: true })
    const [first] = CLIPS
    const path = join(other, 'DCIM/100CURLW', first)
    const bytes = readFileSync(path)
    writeFileSync(path, bytes.fill(0x5a, 70_000, 70_100))
    const { id: loadId } = await world.load()
    const db = await openDatabase(station.databaseUrl)
    try {
      const { stayId, host } = await db
        .selectFrom('reader')
        .selectAll()
        .where('id', '=', world.readerId)
        .executeTakeFirstOrThrow()
      const differing = async (root: string) =>
        (await compareCard(db, host, { medium: new FolderMedium(root), stayId: stayId ?? '', loadId, print: '' }))
          .differing
      const found = await until(
        () => differing(other),
        (count) => count > 0,
      )
      expect(found).toBe(1)
      const again = []
      for (let turn = 0; turn < 20; turn += 1) again.push(await differing(other))
      expect(again).toEqual(again.map(() => 1))
      expect(await differing(world.card)).toBe(0)
      // The place where it differs is gone, and it is no more like the card than before.
      rmSync(path)
      expect(await differing(other)).toBe(1)
    } finally {
      await db.destroy()
    }
  })
})

describe.skipIf(!canMount)('two cards that list the same (needs root to mount)', () => {
  more('are each known again as their own, whichever was scanned last', async () => {
    const world = await cleared(await slotWorld(station))
    const first = await world.load()
    world.slot.change(world.other)
    await world.look()
    const second = await world.load()
    world.slot.change(world.image)
    const known = (loadId: string) =>
      until(
        async () => {
          await world.copies()
          return (await station.get<ReaderView[]>('/readers')).find((row) => row.id === world.readerId)
        },
        (reader) => reader?.loadId === loadId && reader.difference === null,
      )
    expect(await known(first.id)).toMatchObject({ loadId: first.id, difference: null })
    world.slot.change(world.other)
    expect(await known(second.id)).toMatchObject({ loadId: second.id, difference: null })
    // That the first is doubted says nothing of the second: it stays known, and is not compared at each look.
    world.slot.change(world.image)
    await known(first.id)
    await world.look()
    const db = await openDatabase(station.databaseUrl)
    try {
      await db.updateTable('load').set({ cardDoubtedAt: new Date() }).where('id', '=', first.id).execute()
      world.slot.change(world.other)
      await known(second.id)
      const compared = () =>
        db.selectFrom('comparison').select('id').where('loadId', '=', second.id).orderBy('id').execute()
      const before = await compared()
      for (let turn = 0; turn < 3; turn += 1) await known(second.id)
      expect(await compared()).toEqual(before)
    } finally {
      await db.destroy()
    }
  })
})
