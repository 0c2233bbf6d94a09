import { expect } from 'vitest'
import type { CopyRecord } from '../../core/copies/record'
import { putAside } from '../../server/engine/copy/aside'
import { checkCopy } from '../../server/engine/copy/check'
import { copyTree } from '../../server/engine/copy/copy'
import { below } from '../../server/engine/medium/below'
import { FolderMedium } from '../../server/engine/medium/folder'
import { gate, hashOf, keep, memory, partsOf, path, type Story } from './powerWorld'

const ROTTEN = 'DCIM/100CURLW/CURL0041.MP4'

/** A file of a copy that rotted is mended from the other copy, as the job does it. */
export const repairingOf = (bytes: number): Story => {
  const BAD = Buffer.alloc(bytes, 'Curlex')
  return {
    card: { [ROTTEN]: Buffer.alloc(bytes, 'Curlew') },
    prepare: ({ drives, content }) => {
      for (const [at, drive] of drives.entries()) {
        for (const [name, bytes] of Object.entries(content)) drive.put(`Mirror/${name}`, at === 0 ? BAD : bytes)
        drive.settleAll()
      }
    },
    run: async (world) => {
      world.attempt += 1
      const [bad, good] = world.drives.map((drive) => new FolderMedium('', drive))
      if (!bad || !good) throw new Error('no drive')
      await bad.remove(path('.yendra/parts'))
      const hash = hashOf(world.content[ROTTEN] ?? BAD)
      const file = { id: 0, path: path(ROTTEN), sizeBytes: BAD.length, hash }
      const report = (records: readonly CopyRecord[]) => {
        const lost = records.find((record) => record.kind === 'destination-failed' || record.kind === 'source-failed')
        return lost ? Promise.reject(new Error('The power is gone.')) : keep(world, records, () => ROTTEN)
      }
      // What an earlier attempt has put aside may be mended already.
      if (await bad.entry(path(`Set aside/task/Mirror/${ROTTEN}`))) {
        const place = { destinationId: '0', medium: bad, folder: path('Mirror') }
        await checkCopy({ ...place, files: [file], gate, onBytes: () => undefined, report })
        if (world.ledger.proofs.has(`0 ${ROTTEN}`)) return
      }
      const source = below(good, path('Mirror'))
      const listed = await source.entry(file.path)
      await copyTree({
        ...{ source, sourceId: '1', folders: [], gate, memory, onBytes: () => undefined, report },
        files: [{ ...file, modifiedMs: listed?.modifiedMs ?? 0, wantedBy: new Set(['0']), knownHash: hash }],
        destinations: [
          {
            ...{ id: '0', medium: bad, folder: path('Mirror'), parts: partsOf(world) },
            makeWay: async (one) => void (await putAside(bad, path('Mirror'), one.path, 'Set aside/task')),
          },
        ],
      })
      await bad.remove(partsOf(world))
    },
    holds: ({ drives, content, ledger }) => {
      const all = drives[0]?.files() ?? new Map<string, Buffer>()
      // The bad file is never lost, and its name never has anything but it or the good one.
      expect([...all.values()].some((bytes) => bytes.equals(BAD))).toBe(true)
      const named = all.get(`Mirror/${ROTTEN}`)
      const good = content[ROTTEN] ?? BAD
      if (named) expect(named.equals(BAD) || named.equals(good)).toBe(true)
      if (ledger.proofs.has(`0 ${ROTTEN}`)) expect(named?.equals(good)).toBe(true)
      expect(drives[1]?.files('Mirror').get(ROTTEN)?.equals(good)).toBe(true)
    },
    done: ({ drives, content }) => {
      expect(
        drives[0]
          ?.files('Mirror')
          .get(ROTTEN)
          ?.equals(content[ROTTEN] ?? BAD),
      ).toBe(true)
      const aside = [...(drives[0]?.files('Set aside') ?? [])].map(([name]) => name)
      expect(aside).toEqual([`task/Mirror/${ROTTEN}`])
    },
  }
}
