import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { outlookFrom, viewPour } from '../../core/pour'
import { clearWorkshop, loadDemo } from '../../server/demo'
import { listCasts } from '../../server/services/pours/castLog'
import { poursById } from '../../server/services/pours/pourRecords'
import { isUnreadable, type PourRecord } from '../../shared/records'
import { createTestDatabase, type TestDatabase } from '../support/database'

describe('what must never be, the database itself refuses', () => {
  let database: TestDatabase
  const pourId = randomUUID()
  beforeAll(async () => {
    database = await createTestDatabase()
    await sql`insert into pour (id, plan) values (${pourId}, '{}')`.execute(database.db)
  })
  afterAll(() => database.drop())

  const insert = (
    body: object,
    change: { pourId?: string; id?: string; type?: string; voids?: string } = {},
  ) =>
    sql`insert into event (id, pour_id, type, body, occurred_at, who, voids_event_id) values (
      ${change.id ?? randomUUID()}, ${change.pourId ?? pourId}, ${change.type ?? (body as { type: string }).type},
      ${JSON.stringify(body)}, now(), '', ${change.voids ?? null})`.execute(database.db)

  it('a negative or missing mass', async () => {
    await expect(insert({ type: 'weighing', massG: -1 })).rejects.toMatchObject({ code: '23514' })
    await expect(insert({ type: 'weighed', what: 'water', massG: 0 })).rejects.toMatchObject({
      code: '23514',
    })
    await expect(insert({ type: 'weighing' })).rejects.toMatchObject({ code: '23514' })
  })
  it('an event without a pour', () =>
    expect(insert({ type: 'poured' }, { pourId: randomUUID() })).rejects.toMatchObject({ code: '23503' }))
  it('two events with one id', async () => {
    const id = randomUUID()
    await insert({ type: 'poured' }, { id })
    await expect(insert({ type: 'poured' }, { id })).rejects.toMatchObject({ code: '23505' })
  })
  it('an event changed or deleted', async () => {
    await insert({ type: 'tapped' })
    await expect(sql`update event set who = 'x'`.execute(database.db)).rejects.toMatchObject({
      code: '23001',
    })
    await expect(sql`delete from event`.execute(database.db)).rejects.toMatchObject({ code: '23001' })
  })
  it('a type that its body denies, and an undo of nothing', async () => {
    await expect(insert({ type: 'poured' }, { type: 'tapped' })).rejects.toMatchObject({ code: '23514' })
    await expect(insert({ type: 'void', targetId: 'x' })).rejects.toMatchObject({ code: '23514' })
  })
  it('a mould that holds nothing, a second row of settings', async () => {
    await expect(
      sql`insert into mould (id, name, kind, cavity_ml, plus_minus_ml, volume_provenance, thickness_mm, facts, volume)
        values (${randomUUID()}, 'm', 'silicone', 0, 0, '{}', 5, '{}', '{}')`.execute(database.db),
    ).rejects.toMatchObject({ code: '23514' })
    await expect(sql`insert into settings select * from settings`.execute(database.db)).rejects.toMatchObject(
      { code: '23505' },
    )
  })
})

it('the demo workshop has a pour at every stage, clocks running, and loads a second time afresh', async () => {
  const { db, drop } = await createTestDatabase()
  for (let round = 0; round < 2; round++) {
    const nowMs = Date.now()
    await clearWorkshop(db)
    await loadDemo(db, nowMs)
    const { items: lines } = await listCasts(db, { state: 'all', tags: [], q: '', after: '', limit: 100 })
    const answers = await poursById(
      db,
      lines.map((l) => l.id),
    )
    const items = answers.filter((p): p is PourRecord => !isUnreadable(p))
    const views = items.map((p) => viewPour(outlookFrom(p.plan, p.events), nowMs))
    const running = views.filter((v) => v.status === 'running')
    expect(new Set(running.map((v) => v.stage)).size).toBe(9)
    expect(views.filter((v) => v.status === 'finished')).toHaveLength(8)
    expect(views.filter((v) => v.status === 'failed')).toHaveLength(2)
    expect(running.filter((v) => v.stage === 'set').length).toBeGreaterThan(1)
    expect(items.some((p) => p.events.filter((e) => e.body.type === 'weighing').length === 4)).toBe(true)
    const failed = items.find((p) =>
      p.events.some((e) => e.body.type === 'finished' && e.body.verdict === 'failed'),
    )!
    expect(outlookFrom(failed.plan, failed.events).verdict!.reason.length).toBeGreaterThan(20)
    for (const table of ['plaster', 'mould'] as const) {
      const { n } = await db
        .selectFrom(table)
        .select((eb) => eb.fn.countAll<number>().as('n'))
        .executeTakeFirstOrThrow()
      expect(n).toBeGreaterThanOrEqual(table === 'plaster' ? 6 : 8)
    }
  }
  await drop()
})
