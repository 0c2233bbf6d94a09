import { readFileSync } from 'node:fs'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { sql, type Kysely } from 'kysely'
import { AT_HOME_ONLY } from '../../core/copies/rule'
import type { LockerView } from '../../contract/gear'
import type { EffectView, RulesView } from '../../contract/rules'
import { up } from '../../server/db/migrations/0036-rules'
import { testCluster } from '../db/database'
import { newRule } from './rules'
import { newWorld, startStation, type Station, type World } from './station'

let station: Station
beforeAll(async () => {
  station = await startStation()
})
afterAll(() => station.stop())

/** A world whose card is clear by the careful rule. */
async function clearWorld(): Promise<World> {
  const world = await newWorld(station)
  await world.look()
  await world.copy()
  await world.play()
  expect((await world.copies()).clear.sentence).toContain('Yes')
  return world
}

const choose = (world: World, ruleId: string | null) =>
  station.send('PUT', `/productions/${world.productionId}/rule`, { ruleId })
const effect = (query: Record<string, string>) =>
  station.get<EffectView>(`/clear-rule-effect?${new URLSearchParams(query)}`)
const locker = () => station.get<LockerView>('/locker')
const answer = async (world: World) => {
  const { clear } = await world.copies()
  return [clear.clear, ...clear.reasons.filter((one) => !one.met).map((one) => one.sentence)]
}

describe('rules of a yes, by name', () => {
  it('are told with what they would change before they hold, and hold for the production that chose one', async () => {
    const world = await clearWorld()
    const id = await newRule(station, { copies: 3, sites: 2, played: 2 }, 'Three and two')
    const label = (await world.copies()).label
    const change = { of: 'production', id: world.productionId, ruleId: id }
    expect((await effect(change)).sentence).toBe(`With it 1 of 1 card would turn to no: “${label}”.`)
    expect((await choose(world, id)).status).toBe(204)
    expect(await answer(world)).toEqual([
      false,
      expect.stringContaining('three are needed'),
      expect.stringContaining('Nobody has said what kind of place house is'),
      expect.stringContaining('Played from a copy: 1 of 2 clips'),
    ])
    // Another production keeps the usual one.
    const other = await clearWorld()
    expect(await answer(other)).toEqual([true])
    expect(await effect({ ...change, ruleId: '' })).toMatchObject({
      sentence: expect.stringContaining('1 of 1 card would turn to yes'),
      weaker: true,
    })
    const { rules } = await station.get<RulesView>('/clear-rules')
    expect(rules.find((rule) => rule.id === id)).toMatchObject({ chosenBy: [world.title], shipped: false })
    await choose(world, null)
    expect(await answer(world)).toEqual([true])
  })

  it('count a site for what a person says it is, and two clips for two', async () => {
    const world = await clearWorld()
    await choose(world, await newRule(station, { sites: 2, played: 2 }))
    const [{ id: slipway, name, kind }] = (await locker()).volumes.filter((one) => one.id === world.volumeIds[0]) as [
      LockerView['volumes'][number],
    ]
    await station.send('PUT', `/volumes/${slipway}/about`, { name, kind, site: 'bag of rules', medium: 'disk' })
    const say = async (site: string, what: string | null) => {
      const { id } = (await locker()).sites.find((one) => one.name === site) ?? { id: '' }
      await station.send('PUT', `/sites/${id}`, { name: site, kind: what })
    }
    await say('house', 'carried')
    await say('bag of rules', 'carried')
    expect((await answer(world)).join()).toContain('they lie at one: what you carry')
    await say('house', 'stays')
    const [clips, { loadId }] = [await world.clips(), await world.copies()]
    const play = (at: number) =>
      station.post(`/loads/${loadId}/spot-plays`, {
        ...{ volumeId: world.volumeIds[0], clipId: clips[at]?.id, seconds: 3 },
      })
    for (const at of [0, 1]) expect((await play(at)).status).toBe(204)
    expect(await answer(world)).toEqual([true])
    await say('house', null)
  })

  it('are the strictest of all productions that have clips of a card', async () => {
    const world = await clearWorld()
    const other = await newWorld(station)
    const [clip] = await world.clips()
    await choose(other, await newRule(station, { copies: 3 }))
    expect(await answer(world)).toEqual([true])
    expect(
      (await station.post(`/productions/${other.productionId}/given`, { clipIds: [clip?.id] })).status,
    ).toBeLessThan(300)
    expect((await answer(world)).join()).toContain('three are needed')
  })

  it('hold for all productions of a client that chose no other', async () => {
    const world = await clearWorld()
    const ruleId = await newRule(station, { played: 2 })
    await station.send('PUT', `/productions/${world.productionId}`, {
      title: world.title,
      client: 'Harbour',
      shootOn: '',
    })
    const client = (await locker()).clients.find((one) => one.name === 'Harbour')
    expect(client).toMatchObject({ raw: 'all', ruleId: null })
    const of = { of: 'client', id: client?.id ?? '', ruleId }
    expect((await effect(of)).sentence).toContain('1 of 1 card would turn to no')
    const sent = await station.send('PUT', `/clients/${client?.id}`, {
      name: 'Harbour',
      ruleId,
      raw: 'film-and-tracks',
    })
    expect(sent.status).toBe(204)
    expect((await locker()).clients.find((one) => one.id === client?.id)).toMatchObject({
      ruleId,
      raw: 'film-and-tracks',
    })
    expect((await answer(world))[0]).toBe(false)
    const usual = (await station.get<RulesView>('/clear-rules')).usual
    await choose(world, usual)
    expect(await answer(world)).toEqual([true])
  })

  it('are never fewer than two copies on two drives, and those that came along stay as they are', async () => {
    const { rules, usual, atHome } = await station.get<RulesView>('/clear-rules')
    const sent = (change: object) => station.post('/clear-rules', { ...AT_HOME_ONLY, name: 'Weak', ...change })
    for (const change of [{ copies: 1, devices: 1 }, { devices: 1 }, { devices: 3 }, { played: 0 }, { proofHours: 0 }])
      expect((await sent(change)).status, JSON.stringify(change)).toBe(422)
    expect((await sent({ name: 'at HOME only' })).body).toMatchObject({ field: 'name' })
    const shipped = await station.send('PUT', `/clear-rules/${usual}`, { ...AT_HOME_ONLY, name: 'At home only' })
    expect(shipped).toMatchObject({ status: 409, body: { detail: expect.stringContaining('Change a copy') } })
    const none = '11111111-1111-4111-8111-111111111111'
    const world = await newWorld(station)
    expect((await choose(world, none)).status).toBe(404)
    expect((await station.send('PUT', '/settings', { ruleId: none, atHome })).status).toBe(422)
    expect(rules.filter((rule) => rule.shipped).map((rule) => rule.name)).toEqual(['At home only', 'Reuse on the job'])
  })

  it('are changed from what was seen, and by one window at a time', async () => {
    const id = await newRule(station, { played: 2 }, 'Seen')
    const rule = (await station.get<RulesView>('/clear-rules')).rules.find((one) => one.id === id)
    const body = { ...AT_HOME_ONLY, name: 'Seen', played: 3 }
    const change = () => station.send('PUT', `/clear-rules/${id}`, body, { 'If-Match': `"${rule?.version}"` })
    const [a, b] = await Promise.all([change(), change()])
    expect([a?.status, b?.status].sort()).toEqual([204, 409])
  })

  it('are overridden with a reason that stays', async () => {
    const world = await clearWorld()
    await choose(world, await newRule(station, { copies: 3 }))
    const { loadId } = await world.copies()
    const say = (body: object) => station.post(`/loads/${loadId}/formatted`, body)
    expect((await say({})).status).toBe(409)
    expect((await say({ anyway: true, reason: '  ' })).status).toBe(422)
    expect((await say({ anyway: true, reason: 'The client wanted the card back' })).status).toBe(204)
    expect(await world.copies()).toMatchObject({
      formattedAgainst: expect.stringContaining('three are needed'),
      formattedBecause: 'The client wanted the card back',
    })
    // What was taken back is judged again before a rule is kept.
    const none = { of: 'production', id: world.productionId, ruleId: '' }
    expect((await effect(none)).sentence).toContain('No card')
    await station.post(`/loads/${loadId}/unformatted`)
    expect((await effect(none)).sentence).toContain('1 of 1 card would turn to yes')
  })
})

describe('settings of before', () => {
  it('become a rule that asks no less', async () => {
    // Without a station: a worker asks all the time, and tables that change under it end in a deadlock.
    const cluster = await testCluster()
    const db = await cluster.open('yendra_before')
    const before = [
      [{}, 'At home only', 24],
      [{ policy: 'reuse-on-the-job', atHome: false }, 'Reuse on the job', 24],
      [{ policy: 'reuse-on-the-job', atHome: true, acceptMemory: true, proofHours: 48 }, 'Your rule until now', 48],
      [{ proofHours: 12 }, 'Your rule until now', 12],
    ] as const
    for (const [value, name, hours] of before) {
      // Whatever became of it, nothing of it stays.
      await db
        .transaction()
        .execute(async (tx) => {
          await sql
            .raw(
              `alter table client drop rule_id cascade, drop raw; alter table production drop rule_id cascade; drop table clear_rule;
               alter table volume drop medium cascade; alter table site drop constraint site_kind;`,
            )
            .execute(tx)
          await sql`delete from setting where key = 'person'`.execute(tx)
          await sql`insert into setting (key, value) values ('person', ${JSON.stringify(value)}::jsonb)`.execute(tx)
          await up(tx as unknown as Kysely<unknown>)
          const { rows } = await sql<{ name: string; hours: number; desk: boolean; out: boolean; memory: boolean }>`
            select name, proof_hours as hours, at_desk as desk, card_out as out, accept_memory as memory
            from clear_rule where id = (select (value->>'ruleId')::uuid from setting where key = 'person')`.execute(tx)
          const reuse = 'policy' in value
          const memory = 'acceptMemory' in value
          expect(rows).toEqual([{ name, hours, desk: !reuse, out: reuse, memory }])
          throw new Error('taken back')
        })
        .catch((error: unknown) => expect(String(error)).toContain('taken back'))
    }
    await db.destroy()
    await cluster.stop()
    expect(readFileSync('server/db/migrations/0036-rules.ts', 'utf8')).toContain('check (copies >= 2)')
  })
})
