import { describe, expect, it } from 'vitest'
import type { CopyFacts } from '../../copies/mark'
import { whereabouts } from './whereabouts'

const copy = (volumeName: string, more: Partial<CopyFacts> = {}): CopyFacts => ({
  ...{ volumeId: volumeName, volumeName, site: 'workshop', connected: true, device: undefined, sizeBytes: 1000 },
  ...{ filesWanted: 11, filesCopied: 11, filesVerified: 11, filesVerifiedFromCache: 0 },
  ...{ filesMismatched: 0, filesInConflict: 0, filesMissing: 0, mirrorLost: false },
  ...{ filesDoubted: 0, doubtedBytes: 0, mounted: [] },
  ...{ firstVerifiedAt: undefined, lastVerifiedAt: undefined, readAgainAt: undefined, seenAt: undefined },
  ...{
    spotPlayedAt: undefined,
    cycleDays: 180,
    playedAsPreview: false,
    filesPlayed: [],
    foundWrong: [],
    siteKind: undefined,
    medium: undefined,
  },
  ...more,
})
const CAREFUL = { acceptMemory: false }
const said = (clips: number, ...copies: readonly CopyFacts[]) => whereabouts(clips, copies, CAREFUL).sentence

describe('where the clips of a card are', () => {
  it('is said loudly when no volume has them', () => {
    expect(said(14)).toBe('No volume has any of its 14 clips.')
    expect(said(1)).toBe('No volume has its clip.')
    expect(said(0)).toBe('No volume has what is on it.')
    expect(said(3, copy('Tide 1', { filesCopied: 11, mirrorLost: true }))).toBe('No volume has any of its 3 clips.')
  })

  it('names the volumes that have all of it, verified', () => {
    expect(said(3, copy('Slipway'), copy('Tide 1'))).toBe('All of this is verified on Slipway and Tide 1 already.')
    expect(said(3, copy('Slipway'), copy('Tide 1', { filesMissing: 1 }))).toBe(
      'All of this is verified on Slipway, and on no other volume.',
    )
  })

  it('calls nothing verified that was not, and says how much there is of a part', () => {
    const memory = copy('Lantern', { filesVerified: 0, filesVerifiedFromCache: 11 })
    expect(said(3, memory)).toContain('not verified')
    expect(whereabouts(3, [memory], { acceptMemory: true }).state).toBe('once')
    // The load went on since it was copied.
    expect(said(9, copy('Tide 1', { filesWanted: 17 }), copy('Slipway', { filesWanted: 17, filesCopied: 4 }))).toBe(
      'No volume has all of it: Tide 1 has 11 of 17 files.',
    )
  })
})
