import { describe, expect, it } from 'vitest'
import type { Schema } from 'yup'
import { faultOrder, insertOrder } from './bench'
import { findingAnswer, newReader, scanOrder } from './cards'
import { keptChartBody } from './chart'
import { checkOrder, copyOrder, planQuery, spotPlay } from './copies'
import { renderOrder } from './exports'
import { newProduction } from './productions'
import { proxyOrder } from './proxies'
import { newRig } from './rigs'
import { bagOrder } from './shelf'
import { modeBody, planRules } from './gear'
import { dayBody, planBody, planFault, shotsBody } from './shoot'
import { AT_HOME_ONLY } from '../core/copies/rule'
import { ruleBody } from './rules'
import { newVolume } from './storage'

const ID = '11111111-1111-4111-8111-111111111111'

/** The first complaint of a schema about a body, or `undefined` when it takes it. */
function complaint(schema: Schema, body: unknown): string | undefined {
  try {
    // As the server does: right kinds first, then the rules on what was meant.
    schema.validateSync(body, { strict: true })
    schema.validateSync(body)
    return undefined
  } catch (error) {
    return error instanceof Error ? error.message : String(error)
  }
}

const plan = {
  version: 0,
  takes: [{ cameraId: ID, modeId: ID, secondsPerTake: 600, takes: 6, angles: 1, factor: 1.2 }],
  cameras: [{ cameraId: ID, bothSlots: false, cardBytes: 128e9, cardBytesPerSecond: 30e6, cardIds: [ID] }],
}

const mode = {
  name: 'UHD 25p',
  picture: {
    ...{ widthPx: 3840, heightPx: 2160, rate: '25/1', codec: 'H.264', bitDepth: 8, chroma: '4:2:0' },
    ...{ bitsPerSecond: 100e6, rawBitsPerSample: 0, rawHeaderBytes: 0 },
  },
  ...{ audioBitsPerSecond: 256_000, proxyBitsPerSecond: 0, measuredBitsPerSecond: null },
}

const render = {
  clipId: ID,
  destinationId: 'tall-short',
  volumeId: ID,
  window: { x: 1312, y: 0, widthPx: 1216, heightPx: 2160 },
}

describe('a plan', () => {
  it('names each camera once, and each that films', () => {
    expect(planFault(plan)).toBeUndefined()
    expect(planFault({ ...plan, cameras: [...plan.cameras, ...plan.cameras] })).toMatch(/in a plan once/)
    expect(planFault({ ...plan, cameras: [] })).toMatch(/what it records on/)
  })
})

describe('what the server takes', () => {
  it('is taken when it is whole', () => {
    const whole: [Schema, unknown][] = [
      [newProduction, { title: 'Sail loft' }],
      [newProduction, { title: 'Sail loft', client: '', shootOn: '2026-11-24' }],
      [newProduction, { title: '  Sail loft ' }],
      [planBody, plan],
      [modeBody, mode],
      [modeBody, { ...mode, picture: { ...mode.picture, rate: '23.976', bitsPerSecond: 0, rawBitsPerSample: 12 } }],
      [modeBody, { ...mode, picture: null }],
      [scanOrder, { productionId: ID }],
      [newReader, { name: 'left slot', path: '/media/you/CARD' }],
      [findingAnswer, { key: 'gap\nCURL0042\nCURL0044', answer: 'Deleted in the camera' }],
      [copyOrder, { volumeIds: [ID] }],
      [spotPlay, { volumeId: ID, clipId: ID, seconds: 1.2 }],
      [ruleBody, { ...AT_HOME_ONLY, name: 'Three', copies: 3 }],
      [proxyOrder, { clipIds: [ID], volumeId: ID }],
      [renderOrder, render],
      [bagOrder, { deliverableId: ID, volumeId: ID }],
      [newVolume, { name: 'Slipway', kind: 'edit', site: 'workshop', path: '/media/you/Slipway' }],
      [faultOrder, { kind: 'flip-bit', afterBytes: 0 }],
      [insertOrder, { card: 'Curlew A' }],
    ]
    for (const [schema, body] of whole) expect(complaint(schema, body), JSON.stringify(body)).toBeUndefined()
  })

  it('is refused with a sentence that says what to do', () => {
    const wrong: [Schema, unknown, RegExp][] = [
      [newProduction, { title: '' }, /Give the production a title/],
      [newProduction, { title: '   ' }, /Give the production a title/],
      [newProduction, { title: 'x'.repeat(121) }, /under 120/],
      [newProduction, { title: 'x', shootOn: 'tomorrow' }, /year-month-day/],
      [modeBody, { ...mode, picture: { ...mode.picture, rate: 'fast' } }, /25, 23\.976 or 24000\/1001/],
      [modeBody, { ...mode, picture: { ...mode.picture, rawBitsPerSample: 12 } }, /bit rate, or the bits of a raw/],
      [modeBody, { ...mode, picture: { ...mode.picture, widthPx: -1 } }, /width must be at least/],
      [modeBody, { ...mode, picture: null, audioBitsPerSecond: 0 }, /a picture or sound/],
      [planBody, { ...plan, takes: [{ ...plan.takes[0], takes: 0 }] }, /at least 1/],
      [planBody, { ...plan, takes: [{ ...plan.takes[0], takes: 1.5 }] }, /whole number/],
      [planRules, { fillLimit: 1.1, spareCards: 1, factor: 1.2, mains: 50 }, /at most 100 %/],
      [planRules, { fillLimit: 0.9, spareCards: 1, factor: 1.2, mains: 55 }, /50 or 60 Hz/],
      [dayBody, { timeZone: 'Nowhere/At all', calls: [] }, /no time zone/],
      [dayBody, { timeZone: 'UTC', calls: [{ at: '25:00', what: 'x', minutes: 1 }] }, /as 09:30/],
      [scanOrder, { productionId: 'x' }, /Choose a production/],
      [newReader, { name: 'a', path: 'media' }, /starts with \//],
      [findingAnswer, { key: 'gap', answer: ' ' }, /Write an answer/],
      [copyOrder, { volumeIds: [] }, /at least one volume/],
      [spotPlay, { volumeId: ID, clipId: ID, seconds: 0.2 }, /at least one second/],
      [ruleBody, { ...AT_HOME_ONLY, name: 'One', copies: 1, devices: 1 }, /at least 2/],
      [ruleBody, { ...AT_HOME_ONLY, name: 'One', devices: 3 }, /more drives than there are copies/],
      [proxyOrder, { clipIds: [], volumeId: ID }, /at least one clip/],
      [proxyOrder, { volumeId: ID }, /or the whole production/],
      [checkOrder, { volumeIds: [ID], how: 'quickly' }, /whole copy or a sample/],
      [ruleBody, { ...AT_HOME_ONLY, name: 'Soon', proofHours: 0 }, /at least 1/],
      [renderOrder, { ...render, window: { ...render.window, x: -2 } }, /outside the picture/],
      [renderOrder, { ...render, window: { ...render.window, y: 0.5 } }, /must be whole/],
      [newVolume, { name: 'x', kind: 'tape', site: 'x', path: '/x' }, /what kind of volume/],
      [faultOrder, { kind: 'fire' }, /one of the faults/],
    ]
    for (const [schema, body, sentence] of wrong)
      expect(complaint(schema, body), JSON.stringify(body)).toMatch(sentence)
  })

  it('takes twenty passes of one performance, and no more', () => {
    const passes = (count: number) => complaint(shotsBody, { shots: [{ name: 'Verse' }], passes: count })
    expect([0, 1, 20].map((count) => passes(count) === undefined)).toEqual([false, true, true])
    expect(passes(21)).toMatch(/passes/)
  })

  it('orders proxies of any number of clips', () => {
    expect(complaint(proxyOrder, { clipIds: Array.from({ length: 1500 }, () => ID), volumeId: ID })).toBeUndefined()
    expect(complaint(proxyOrder, { productionId: ID, volumeId: ID })).toBeUndefined()
  })

  it('takes what is named twice, in whatever letters, for one thing', () => {
    const small = 'abcdef01-2345-4678-9abc-def012345678'
    const volumeIds = [small, ID, small.toUpperCase(), ID]
    expect(copyOrder.cast({ volumeIds })).toMatchObject({ volumeIds: [small, ID] })
    expect(planQuery.cast({ volumeIds: volumeIds.join() })).toMatchObject({ volumeIds: `${small},${ID}` })
    expect(complaint(newRig, { name: 'Pole', loadIds: [small, small.toUpperCase()] })).toMatch(/one lens only|least 2/)
    expect(complaint(copyOrder, { volumeIds: [small, 'abc'] })).toMatch(/no volume/)
  })

  it('takes nothing that it does not know', () => {
    expect(complaint(newProduction, { title: 'x', owner: 'somebody' })).toMatch(/owner/)
    expect(complaint(renderOrder, { ...render, path: '/etc/passwd' })).toMatch(/path/)
  })
})

describe('a line of a kept chart', () => {
  it('has a day of the calendar or none', () => {
    const day = (shootOn: unknown) =>
      complaint(keptChartBody, { fileName: 'a.csv', lines: [{ production: 'Sail loft', load: 'Reel 1', shootOn }] })
    expect(['2026-11-14', null, undefined].map(day)).toEqual([undefined, undefined, undefined])
    expect(['', '2026-02-30', 'May'].map(day)).toEqual(['That is no day.', 'That is no day.', 'That is no day.'])
  })
})
