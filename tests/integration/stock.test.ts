import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { describe, expect, it } from 'vitest'
import { parseRatioLabel } from '../../core/plaster'
import { labelOfClass } from '../../core/stock'
import { listPlasters } from '../../server/services/shelf/plasters'
import type { BagCard, BagInput, PlasterCard, PlasterInput } from '../../shared/stock'
import { createTestDatabase } from '../support/database'
import { withServer } from '../support/suite'
import { TEST_SETTINGS, testPlan } from '../unit/plans'

const suite = withServer()
const { send } = suite

const plasterOf = (change: Partial<PlasterInput> = {}): PlasterInput => ({
  name: 'Blue sack',
  label: { ...labelOfClass('pottery'), consistency: 72, setMin: 30 },
  printedRatio: '72 parts',
  additions: [{ id: 'pigment', pct: 2 }],
  note: '',
  ...change,
})
async function newPlaster(change: Partial<PlasterInput> = {}): Promise<PlasterCard> {
  const answer = await send('PUT', `/api/plasters/${randomUUID()}`, {
    revision: null,
    plaster: plasterOf(change),
  })
  expect(answer.status).toBe(200)
  return answer.json as never
}
const bagOf = (plasterId: string, change: Partial<BagInput> = {}): BagInput => ({
  plasterId,
  name: 'Sack of spring',
  boughtG: 25_000,
  price: 21,
  openedOn: '2026-03-01',
  keeping: 'dry_open',
  scoop: null,
  counted: null,
  usedUp: false,
  note: '',
  ...change,
})
async function newBag(change: Partial<BagInput> = {}): Promise<BagCard> {
  const { id } = await newPlaster()
  const answer = await send('PUT', `/api/bags/${randomUUID()}`, { revision: null, bag: bagOf(id, change) })
  expect(answer.status).toBe(200)
  return answer.json as never
}
const listed = async (id: string) =>
  ((await send('GET', '/api/bags?limit=100')).json as never as { items: BagCard[] }).items.find(
    (b) => b.id === id,
  )!

describe('plaster cards', () => {
  it('keep what the label says, and the same twice is one', async () => {
    const id = randomUUID()
    const put = () => send('PUT', `/api/plasters/${id}`, { revision: null, plaster: plasterOf() })
    expect((await put()).json).toEqual({ id, revision: 1, ...plasterOf() })
    expect((await put()).status).toBe(200)
    const other = { revision: null, plaster: plasterOf({ name: 'Another' }) }
    expect(await send('PUT', `/api/plasters/${id}`, other)).toMatchObject({
      status: 409,
      json: { error: { code: 'card_id_conflict' } },
    })
  })
  it('change from the version that was seen; of two at once one is told', async () => {
    const { id } = await newPlaster()
    const change = (name: string) =>
      send('PUT', `/api/plasters/${id}`, { revision: 1, plaster: plasterOf({ name }) })
    const answers = await Promise.all([change('First'), change('Second')])
    expect(answers.map((a) => a.status).sort()).toEqual([200, 409])
    expect(answers.find((a) => a.status === 409)!.json).toMatchObject({ error: { code: 'stale_card' } })
    expect(
      (await send('PUT', `/api/plasters/${randomUUID()}`, { revision: 1, plaster: plasterOf() })).status,
    ).toBe(404)
  })
  it.each([
    ['too little water to harden', { label: { ...labelOfClass('pottery'), consistency: 16 } }],
    ['an addition nobody puts in', { additions: [{ id: 'salt', pct: 50 }] }],
    ['an addition twice', { additions: Array(2).fill({ id: 'sand', pct: 5 }) }],
    ['no name', { name: ' ' }],
  ] as [string, Partial<PlasterInput>][])('are refused with %s, at the field', async (_, change) => {
    const answer = await send('PUT', `/api/plasters/${randomUUID()}`, {
      revision: null,
      plaster: plasterOf(change),
    })
    expect(answer.status).toBe(400)
    const { fields } = (answer.json as never as { error: { fields: { path: string }[] } }).error
    expect(fields[0]!.path).toMatch(/^plaster\./)
  })
  it('with bags are not thrown away; without, they are', async () => {
    const bag = await newBag()
    expect(await send('DELETE', `/api/plasters/${bag.plasterId}`)).toMatchObject({
      status: 409,
      json: { error: { code: 'in_use' } },
    })
    expect((await send('DELETE', `/api/bags/${bag.id}`)).status).toBe(200)
    expect((await send('DELETE', `/api/plasters/${bag.plasterId}`)).status).toBe(200)
    expect((await send('DELETE', `/api/plasters/${bag.plasterId}`)).status).toBe(404)
  })
})

describe('a bag', () => {
  /** A pour out of it, with a function that records and answers with the event's id. */
  async function pourFrom(bag: BagCard) {
    const id = randomUUID()
    const plan = testPlan()
    const { id: bagId, name, boughtG, price } = bag
    plan.plaster = { ...plan.plaster, bag: { bagId, name, boughtG, price } }
    expect((await send('POST', '/api/pours', { id, plan })).status).toBe(200)
    let atMs = Date.now() - 60_000
    return async (body: object) => {
      const event = { id: randomUUID(), occurredAtMs: (atMs += 1000), who: '', body }
      expect((await send('POST', `/api/pours/${id}/events`, event)).status).toBe(200)
      return event.id
    }
  }

  it('is counted down by what was really weighed out of it, bowl by bowl', async () => {
    const bag = await newBag()
    expect(bag).toMatchObject({ leftG: 25_000, pours: 0, spoonTests: [] })
    const record = await pourFrom(bag)
    const powder = (massG: number, batch?: number) =>
      record({ type: 'weighed', what: 'powder', massG, ...(batch ? { batch } : {}) })
    await record({ type: 'weighed', what: 'water', massG: 900 })
    expect((await listed(bag.id)).leftG).toBe(25_000)
    await powder(1300)
    // Weighed again: the later figure stands.
    await powder(1200)
    await powder(500, 1)
    expect(await listed(bag.id)).toMatchObject({ leftG: 23_300, pours: 1 })
    await record({ type: 'corrected', how: 'powder_in', massG: 150 })
    await record({ type: 'corrected', how: 'powder_out', massG: 50, batch: 1 })
    expect((await listed(bag.id)).leftG).toBe(23_200)
    const wrong = await powder(9000, 1)
    await record({ type: 'void', targetId: wrong })
    expect((await listed(bag.id)).leftG).toBe(23_200)
  })

  it('counts from when it was last weighed, and never below nothing', async () => {
    const bag = await newBag()
    const record = await pourFrom(bag)
    await record({ type: 'weighed', what: 'powder', massG: 4000 })
    const { plasterId } = bag
    const put = (revision: number, change: Partial<BagInput>) =>
      send('PUT', `/api/bags/${bag.id}`, { revision, bag: bagOf(plasterId, change) })
    expect((await put(1, { counted: { leftG: 20_000, atMs: Date.now() } })).json).toMatchObject({
      leftG: 20_000,
    })
    expect((await put(2, { boughtG: 3000 })).json).toMatchObject({ leftG: 0 })
    expect((await put(3, { usedUp: true })).json).toMatchObject({ leftG: 0 })
    expect((await put(4, { counted: { leftG: 30_000, atMs: 0 } })).status).toBe(400)
    expect((await put(1, {})).status).toBe(409)
  })

  it('keeps its spoon tests, each once', async () => {
    const bag = await newBag()
    const test = {
      id: randomUUID(),
      atMs: Date.now(),
      consistency: 72,
      waterTempC: 16,
      stirS: 60,
      tookS: 1400,
    }
    const path = `/api/bags/${bag.id}/spoon-tests`
    expect((await send('POST', path, test)).json).toMatchObject({ spoonTests: [test] })
    expect((await send('POST', path, test)).json).toMatchObject({ spoonTests: [test] })
    expect((await send('POST', path, { ...test, id: randomUUID(), tookS: 5 })).status).toBe(400)
    expect((await send('POST', `/api/bags/${randomUUID()}/spoon-tests`, test)).status).toBe(404)
    expect((await send('DELETE', `/api/spoon-tests/${test.id}`)).status).toBe(200)
    expect((await listed(bag.id)).spoonTests).toEqual([])
  })

  it('belongs to a plaster that is here', async () => {
    const orphan = { revision: null, bag: bagOf(randomUUID()) }
    expect(await send('PUT', `/api/bags/${randomUUID()}`, orphan)).toMatchObject({
      status: 400,
      json: { error: { fields: [{ path: 'bag.plasterId' }] } },
    })
  })
})

describe('the cupboard', () => {
  it('keeps bowls and recipes, puts the new in place of the old, and throws away', async () => {
    const [bowlId, recipeId] = [randomUUID(), randomUUID()]
    const bowl = { name: 'Basin', volumeMl: 4000, tareG: 236 }
    const recipe = { name: 'Thinner', plan: testPlan('pottery', { consistency: 76 }) }
    const put = (path: string, body: object) => send('PUT', path, body)
    const [bowlPath, recipePath] = [`/api/bowls/${bowlId}`, `/api/recipes/${recipeId}`]
    const made = { id: bowlId, revision: 1, ...bowl }
    expect((await put(bowlPath, { revision: null, bowl })).json).toEqual(made)
    // The same again is one bowl; another under its id, or from an older look, is told what is there.
    expect((await put(bowlPath, { revision: null, bowl })).json).toEqual(made)
    const heavier = { ...bowl, tareG: 240 }
    expect(await put(bowlPath, { revision: null, bowl: heavier })).toMatchObject({
      status: 409,
      json: { error: { code: 'card_id_conflict', current: made } },
    })
    expect((await put(bowlPath, { revision: 1, bowl: heavier })).json).toMatchObject({ revision: 2 })
    expect((await put(bowlPath, { revision: 1, bowl: heavier })).json).toMatchObject({ revision: 2 })
    expect(await put(bowlPath, { revision: 1, bowl })).toMatchObject({
      status: 409,
      json: { error: { code: 'stale_card', current: { ...heavier, revision: 2 } } },
    })
    expect((await send('GET', '/api/bowls')).json).toEqual([{ id: bowlId, revision: 2, ...heavier }])
    expect((await put(bowlPath, { revision: 2, bowl: { ...bowl, volumeMl: 0 } })).status).toBe(400)
    expect((await put(recipePath, { revision: null, recipe })).status).toBe(200)
    expect((await send('GET', '/api/recipes')).json).toEqual([{ id: recipeId, revision: 1, ...recipe }])
    expect(
      (await put(recipePath, { revision: 1, recipe: { ...recipe, name: 'Renamed' } })).json,
    ).toMatchObject({
      revision: 2,
    })
    expect((await put(recipePath, { revision: 1, recipe })).status).toBe(409)
    const dry = { ...recipe, plan: testPlan('pottery', { consistency: 16 }) }
    expect((await put(recipePath, { revision: 2, recipe: dry })).status).toBe(400)
    for (const path of [`/api/bowls/${bowlId}`, `/api/recipes/${recipeId}`]) {
      expect((await send('DELETE', path)).status).toBe(200)
      expect((await send('DELETE', path)).status).toBe(404)
    }
  })
})

it('a plan of more bowls than anybody mixes is refused, one of several is kept', async () => {
  const batching = (bowlMl: number) => ({
    split: { by: 'need' as const },
    bowl: { name: 'b', volumeMl: bowlMl, tareG: 0 },
    pourRateMlMin: null,
    scaleCapacityG: null,
  })
  const put = (bowlMl: number, cavityMl: number) => {
    const plan = testPlan('pottery', { batching: batching(bowlMl) })
    plan.mould = { ...plan.mould, cavityMl }
    return send('POST', '/api/pours', { id: randomUUID(), plan })
  }
  expect((await put(1000, 3000)).status).toBe(200)
  expect(await put(100, 100_000)).toMatchObject({ status: 400, json: { error: { code: 'invalid_input' } } })
})

it('a card from before labels were read keeps its ratio, as if it had been typed', async () => {
  const old = await createTestDatabase({ upTo: '20261124T0001_moulds' })
  await sql`insert into plaster (id, name, class_id, label_consistency, label_expansion_pct)
    values (${randomUUID()}, 'Paper bag', 'pop', 64.5, null),
      (${randomUUID()}, 'Plain tub', 'gc', null, 0.3)`.execute(old.db)
  const now = await old.finish()
  const { items } = await listPlasters(now.db, { after: '', limit: 10 })
  expect(items).toMatchObject([
    { name: 'Paper bag', printedRatio: '64.5 parts', label: { consistency: 64.5, setMin: null } },
    { name: 'Plain tub', printedRatio: '', label: { consistency: null, expansionPct: 0.3 } },
  ])
  expect(parseRatioLabel((items[0] as PlasterCard).printedRatio, 'pop', TEST_SETTINGS)).toMatchObject({
    ok: true,
    readings: [{ consistency: 64.5 }],
  })
  await old.drop()
})

it('the database itself refuses what must never be', async () => {
  const { db } = suite.database
  const { id } = await newBag()
  const refused = (statement: ReturnType<typeof sql>) =>
    expect(statement.execute(db)).rejects.toMatchObject({ code: expect.stringMatching(/^23/) })
  await refused(sql`update bag set bought_g = 0 where id = ${id}`)
  await refused(sql`update bag set counted_g = 5 where id = ${id}`)
  await refused(sql`insert into bag (id, plaster_id, name, bought_g, keeping)
    values (${randomUUID()}, ${randomUUID()}, 'x', 1, 'sealed')`)
  await refused(sql`insert into spoon_test (id, bag_id, tested_at, consistency, water_temp_c, stir_s, took_s)
    values (${randomUUID()}, ${id}, now(), 70, 20, 60, 0)`)
  await refused(sql`insert into bowl (id, name, volume_ml, tare_g) values (${randomUUID()}, 'x', 0, 0)`)
  const pourId = randomUUID()
  await send('POST', '/api/pours', { id: pourId, plan: testPlan() })
  await refused(sql`insert into event (id, pour_id, type, body, occurred_at, who) values
    (${randomUUID()}, ${pourId}, 'corrected', '{"type":"corrected","how":"water_in"}', now(), '')`)
})

it('what was done with the settling bucket is written down once, the latest first, and taken back', async () => {
  const entry = (what: string, atMs: number) => ({ id: randomUUID(), what, atMs, who: 'Mina' })
  const [filled, poured] = [entry('filled', 1000), entry('poured_off', 2000)]
  for (const e of [poured, filled, filled])
    expect((await send('POST', '/api/settling', e)).json).toEqual(e as never)
  expect((await send('GET', '/api/settling')).json).toEqual([poured, filled] as never)
  expect((await send('POST', '/api/settling', { ...filled, what: 'drained' })).status).toBe(400)
  expect((await send('DELETE', `/api/settling/${poured.id}`)).status).toBe(200)
  expect((await send('DELETE', `/api/settling/${poured.id}`)).status).toBe(404)
  expect((await send('GET', '/api/settling')).json).toEqual([filled] as never)
})
