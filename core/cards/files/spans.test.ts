import { describe, expect, it } from 'vitest'
import { goesOnSentence, takesThatGoOn, type EdgeClip } from './spans'

const at = (text: string) => Date.parse(`2026-11-14T${text}Z`)
const clip = (name: string, start: string, seconds: number, mode = '3840×2160 25 h264'): EdgeClip => ({
  id: `${name} ${start}`,
  name,
  startMs: at(start),
  endMs: at(start) + seconds * 1000,
  mode,
})
const load = (label: string, first: EdgeClip, last: EdgeClip = first) => ({ id: label, label, first, last })

describe('a take that goes on on a second card', () => {
  const full = load('Curlew A', clip('CURL0041.MP4', '09:00:00', 60), clip('CURL0044.MP4', '10:00:00', 1800))

  it('is one that begins as the other ends', () => {
    const found = takesThatGoOn([full, load('Curlew B', clip('CURL0045.MP4', '10:30:01', 600))])
    const goesOn = { name: 'CURL0045.MP4', from: 'CURL0044.MP4', fromLabel: 'Curlew A' }
    expect(found).toEqual([
      { loadId: 'Curlew B', goesOn, clipId: 'CURL0045.MP4 10:30:01', afterId: 'CURL0044.MP4 10:00:00' },
    ])
    expect(goesOnSentence(goesOn)).toContain('one take on two cards')
  })

  it('begins within two seconds of the end, before or behind it', () => {
    const goesOn = (seconds: number) =>
      takesThatGoOn([
        full,
        load('Curlew B', { ...clip('CURL0045.MP4', '10:30:00', 600), startMs: at('10:30:00') + seconds * 1000 }),
      ]).length
    expect([-2.001, -2, 0, 2, 2.001].map(goesOn)).toEqual([0, 1, 1, 1, 0])
  })

  it('is none after a pause, in another mode, of another camera, nor where two fit', () => {
    for (const first of [
      clip('CURL0045.MP4', '10:30:05', 600),
      clip('CURL0045.MP4', '10:30:00', 600, '1920×1080 50 h264'),
      clip('PLOV0107.MP4', '10:30:00', 600),
    ])
      expect(takesThatGoOn([full, load('next', first)])).toEqual([])
    const twin = { ...full, id: 'twin', label: 'twin' }
    const next = load('next', clip('CURL0045.MP4', '10:30:00', 600))
    expect(takesThatGoOn([full, twin, next])).toEqual([])
    expect(takesThatGoOn([full, next, { ...next, id: 'other', label: 'other' }])).toEqual([])
  })
})
