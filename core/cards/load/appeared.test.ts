import { describe, expect, it } from 'vitest'
import { fullness, offerOf } from './appeared'

describe('a file system that has just appeared', () => {
  const card = { name: 'CURLEW', capacityBytes: 64e9, freeBytes: 43e9, topNames: ['DCIM'], marker: undefined }

  it('is offered with its size and how full it is', () => {
    expect(offerOf(card).sentence).toBe('A card appeared: “CURLEW”, 64.0 GB, a third full. Scan it?')
    expect(offerOf({ ...card, topNames: ['notes'] })).toMatchObject({ kind: 'card or drive' })
  })

  it('is no card when it carries a marker', () => {
    expect(offerOf({ ...card, marker: { volume: undefined } })).toMatchObject({ kind: 'marked' })
    const marker = (connected: boolean) => ({ volume: { name: 'Slipway', connected } })
    expect(offerOf({ ...card, marker: marker(true) }).sentence).toContain('counts for nothing')
    expect(offerOf({ ...card, marker: marker(false) }).sentence).toContain('It is Slipway, which was put away')
  })

  it('is as full as people would say', () => {
    expect([0, 0.1, 0.25, 1 / 3, 0.5, 2 / 3, 0.75, 0.95, 1].map((used) => fullness(1e6, 1e6 * (1 - used)))).toEqual([
      'nearly empty',
      'an eighth full',
      'a quarter full',
      'a third full',
      'half full',
      'two thirds full',
      'three quarters full',
      'nearly full',
      'full',
    ])
    // More free than there is, or nothing at all: no division by it.
    expect([fullness(0, 0), fullness(10, 20)]).toEqual(['nearly empty', 'nearly empty'])
    // A new ext4 of 2 GB as statfs(2) tells it: a twentieth is kept for the system (mke2fs(8), `-m`).
    expect(fullness(2_040_373_248, 1_916_198_912)).toBe('nearly empty')
  })
})
