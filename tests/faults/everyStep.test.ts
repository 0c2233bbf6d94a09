import { execFileSync } from 'node:child_process'
import { mkdirSync, writeFileSync } from 'node:fs'
import { join } from 'node:path'
import { describe, expect, it } from 'vitest'
import { FolderMedium } from '../../server/engine/folder'
import { deviceError, type Medium } from '../../server/engine/medium'
import { copyCard, emptyBench, treeDifference, type Bench } from './fixtures'

/** Counts every step on any of the media, and lets none happen after the one at which the power goes. */
class Power {
  steps = 0
  constructor(readonly goesAt: number) {}

  get isGone(): boolean {
    return this.steps >= this.goesAt
  }

  step(): void {
    this.steps += 1
    if (this.steps > this.goesAt) throw deviceError('EIO', 'The power is gone.')
  }
}

/** The test's own process lives on and must not keep files open for ever. */
async function giveBack(file: { abandon?: () => Promise<void>; close?: () => Promise<void> }): Promise<void> {
  await (file.abandon ? file.abandon() : file.close?.())
}

/** A medium whose every step, also on its open files, needs power. */
function powered(medium: Medium, power: Power): Medium {
  const guarded = <T extends object>(target: T): T =>
    new Proxy(target, {
      get(object, key) {
        const member: unknown = Reflect.get(object, key, object)
        if (typeof member !== 'function') return member
        return async (...args: unknown[]) => {
          if (power.isGone && (key === 'close' || key === 'abandon')) await giveBack(object)
          power.step()
          const result: unknown = await Reflect.apply(member as (...all: unknown[]) => unknown, object, args)
          return key === 'open' || key === 'create' ? guarded(result as object) : result
        }
      },
    })
  return guarded(medium)
}

function smallCard(): Bench {
  const bench = emptyBench()
  const folder = join(bench.card, 'DCIM/100CURLW')
  mkdirSync(folder, { recursive: true })
  // One file above the size of a small block, which is copied by itself, and a batch of small ones.
  writeFileSync(join(folder, 'CURL0041.MP4'), Buffer.alloc(2_500_000, 'Curlew'))
  for (const name of ['CURL0041.XML', 'CURL0042.XML']) writeFileSync(join(folder, name), name)
  writeFileSync(join(bench.card, 'EMPTY.TXT'), '')
  return bench
}

const copyWith = (bench: Bench, power: Power) =>
  copyCard(
    powered(new FolderMedium(bench.card), power),
    powered(new FolderMedium(bench.slipway), power),
    powered(new FolderMedium(bench.tide), power),
  )

describe('a copy that loses power', () => {
  it('at any of its steps ends, when it is started again, as an undisturbed one does', async () => {
    const undisturbed = new Power(Infinity)
    await copyWith(smallCard(), undisturbed)
    expect(undisturbed.steps).toBeGreaterThan(60)
    const bench = smallCard()
    for (let goesAt = 0; goesAt < undisturbed.steps; goesAt += 1) {
      execFileSync('find', [bench.slipway, bench.tide, '-mindepth', '1', '-delete'])
      await copyWith(bench, new Power(goesAt)).catch(() => undefined)
      // Whatever has its real name by now is whole.
      for (const drive of [bench.slipway, bench.tide]) {
        expect(
          treeDifference(bench.card, join(drive, 'Mirror'))
            .split('\n')
            .filter((line) => line.includes('differ')),
          `cut at step ${goesAt}`,
        ).toEqual([])
      }
      const { records } = await copyWith(bench, new Power(Infinity))
      expect(
        records.filter((record) => record.kind !== 'proved'),
        `cut at step ${goesAt}`,
      ).toEqual([])
      // Source: diff -r and find of Debian.
      for (const drive of [bench.slipway, bench.tide]) {
        expect(treeDifference(bench.card, join(drive, 'Mirror')), `cut at step ${goesAt}`).toBe('')
        expect(
          execFileSync('find', [drive, '-type', 'f', '-not', '-path', '*/Mirror/*'], { encoding: 'utf8' }),
          `cut at step ${goesAt}`,
        ).toBe('')
      }
    }
  })
})
