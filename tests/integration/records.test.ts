import { randomUUID } from 'node:crypto'
import { readFileSync } from 'node:fs'
import { sql } from 'kysely'
import { expect, it } from 'vitest'
import { keepPlan, type PlanV1 } from '../../core/pour'
import { listRecipes } from '../../server/services/shelf/cupboard'
import { rebuildSummaries } from '../../server/services/pours/summaries'
import { getReadable, listOpen, poursById } from '../../server/services/pours/pourRecords'
import { isUnreadable, type PourRecord, type UnreadablePour } from '../../shared/records'
import { createTestDatabase } from '../support/database'
import { withServer } from '../support/suite'
import { testPlan } from '../unit/plans'

const suite = withServer()
const { send } = suite
const ALL = { after: '', limit: 100 } as const

it('plans of version 1 get the bowls they had, once and for all, and no window hears of it', async () => {
  const old = await createTestDatabase({ upTo: '20261125T0800_stock' })
  const samples = JSON.parse(readFileSync(new URL('../fixtures/plans.v1.json', import.meta.url), 'utf8')) as {
    plan: PlanV1
    bowls: object[]
  }[]
  const ids = samples.map(() => randomUUID())
  for (const [i, { plan }] of samples.entries())
    await sql`insert into pour (id, plan) values (${ids[i]}, ${JSON.stringify(plan)})`.execute(old.db)
  await sql`insert into pour (id, plan) values (${randomUUID()}, '{"schemaVersion": 1, "piece": "Half a plan"}')`.execute(
    old.db,
  )
  const changes = () => sql<{ n: string }>`select count(*) as n from change`.execute(old.db)
  const before = (await changes()).rows[0]!.n
  const now = await old.finish()
  expect((await changes()).rows[0]!.n).toBe(before)
  const stored = await sql<{ plan: { schemaVersion: number; kept: { batches: object[] } } }>`
    select plan from pour where id = any(${ids}::uuid[]) order by array_position(${ids}::uuid[], id)`.execute(
    old.db,
  )
  expect(stored.rows.map((r) => r.plan.schemaVersion)).toEqual([2, 2, 2])
  for (const [i, { plan }] of stored.rows.entries())
    expect(plan.kept.batches).toMatchObject(samples[i]!.bowls)
  // What could not be read stays as it was, and says so.
  expect(await rebuildSummaries(now.db, 'missing', poursById)).toBe(4)
  const { items } = await listOpen(now.db, ALL)
  expect(items.filter(isUnreadable)).toMatchObject([{ raw: { plan: { piece: 'Half a plan' } } }])
  expect(items).toHaveLength(4)
  await old.drop()
})

async function newPour(): Promise<string> {
  const id = randomUUID()
  expect((await send('POST', '/api/pours', { id, plan: testPlan() })).status).toBe(200)
  return id
}

it('one record that cannot be read takes no list down: pours, recipes and cards', async () => {
  const { db } = suite.database
  const [good, badPlan, badEvent] = [await newPour(), randomUUID(), await newPour()]
  await sql`insert into pour (id, plan) values (${badPlan}, '{"schemaVersion": 7}')`.execute(db)
  await sql`insert into event (id, pour_id, type, body, occurred_at, who)
    values (${randomUUID()}, ${badEvent}, 'levitated', '{"type": "levitated"}', now(), 'nobody')`.execute(db)
  // Put in behind the server's back, they are listed once they are summed up.
  await rebuildSummaries(db, 'all', poursById)
  const log = await send('GET', '/api/pours?limit=100')
  expect(log.json).toMatchObject({
    items: [{ unreadable: true }, { unreadable: true }, { unreadable: false }],
  })
  const { json } = await send('GET', '/api/bench?limit=100')
  const items = (json as unknown as { items: (PourRecord | UnreadablePour)[] }).items
  const broken = items.filter(isUnreadable)
  expect(broken.map((p) => p.id).sort()).toEqual([badPlan, badEvent].sort())
  expect(broken.find((p) => p.id === badEvent)).toMatchObject({
    unreadable: [expect.stringContaining('type')],
    raw: { plan: { piece: 'A test piece' }, events: [{ type: 'levitated' }] },
  })
  expect(items.find((p) => p.id === good)).toMatchObject({ plan: { piece: 'A test piece' } })

  await sql`insert into recipe (id, name, plan) values (${randomUUID()}, 'Torn page', '{"schemaVersion": 2}')`.execute(
    db,
  )
  expect(await listRecipes(db)).toMatchObject([{ name: 'Torn page', raw: { name: 'Torn page' } }])
  await sql`insert into plaster (id, name, class_id, additions) values (${randomUUID()}, 'Odd sack', 'pop', '[{"id": "sawdust", "pct": 1}]')`.execute(
    db,
  )
  const plasters = await send('GET', '/api/plasters')
  expect(plasters.status).toBe(200)
  expect(plasters.json).toMatchObject({ items: [{ name: 'Odd sack', unreadable: [expect.any(String)] }] })
})

it('a pour of version 1 may still be sent, and is kept with its bowls', async () => {
  const id = randomUUID()
  const answer = await send('POST', '/api/pours', { id, plan: { ...testPlan(), schemaVersion: 1 } })
  expect(answer.json).toMatchObject({ plan: { schemaVersion: 2, kept: { modelVersion: 1 } } })
})

it('events name the plan they were recorded against: an older one locks nothing until it is said to hold', async () => {
  const id = await newPour()
  const event = (body: object, planRevision?: number) =>
    send('POST', `/api/pours/${id}/events`, {
      id: randomUUID(),
      occurredAtMs: Date.now() - 1000,
      who: 'Ines',
      body,
      ...(planRevision === undefined ? {} : { planRevision }),
    })
  const change = (revision: number, consistency: number) =>
    send('PUT', `/api/pours/${id}/plan`, { revision, plan: keepPlan(testPlan('pottery', { consistency })) })
  expect((await change(1, 80)).status).toBe(200)
  expect((await event({ type: 'weighed', what: 'water', massG: 700 }, 1)).status).toBe(200)
  expect((await event({ type: 'weighed', what: 'water', massG: 700 }, 9)).status).toBe(400)
  // The plan it was weighed for is still known, and the one that stands may still change.
  expect(await getReadable(suite.database.db, id)).toMatchObject({
    revision: 2,
    earlierPlans: [{ revision: 1, plan: { consistency: 70 } }],
  })
  expect((await change(2, 75)).status).toBe(200)
  expect((await event({ type: 'plan_holds', revision: 1 }, 3)).status).toBe(200)
  expect((await change(3, 72)).json).toMatchObject({ error: { code: 'plan_locked' } })
})
