import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { keepPlan } from '../../core/pour'
import { loadDemo } from '../../server/demo'
import { fillWorkshop } from '../../scripts/fill'
import { openDatabase } from '../../server/db/client'
import { createTestDatabase } from '../support/database'
import { send } from '../support/http'
import { startServer, type TestServer } from '../support/server'
import { testPlan } from '../unit/plans'

/**
 * Every plan that the database makes for what screens and devices ask, as it makes them: none may go through all of a
 * table that grows with the years. Sequential scans are the last choice here, so that a small table tells as much as a
 * large one: what still needs one has no index to go by.
 */
const GROWING = ['event', 'reading', 'pour', 'pour_summary', 'plan_revision', 'photo', 'change', 'heed']

/** Enough of them that what they are looked for by is worth an index. */
const POURS = 3000

let database: Awaited<ReturnType<typeof createTestDatabase>>
let server: TestServer
let logFrom: number

interface Plan {
  'Node Type': string
  'Relation Name'?: string
  'Index Name'?: string
  'Index Cond'?: string
  'Recheck Cond'?: string
  Plans?: Plan[]
}

/** The cluster's own log, from where this test began. */
async function logged(): Promise<string> {
  const { rows } = await sql<{ text: string }>`
    select pg_read_file('server.log', ${logFrom}, 1000000000) as text`.execute(database.owner)
  return rows[0]!.text
}

beforeAll(async () => {
  database = await createTestDatabase()
  const { rows } = await sql<{ size: number; name: string }>`
    select size::int as size, current_database() as name from pg_stat_file('server.log')`.execute(
    database.owner,
  )
  logFrom = rows[0]!.size
  const name = sql.id(rows[0]!.name)
  for (const [setting, value] of [
    ['session_preload_libraries', 'auto_explain'],
    ['auto_explain.log_min_duration', '0'],
    ['auto_explain.log_nested_statements', 'on'],
    ['auto_explain.log_format', 'json'],
    ['enable_seqscan', 'off'],
  ])
    await sql`alter role ripples_app in database ${name} set ${sql.raw(setting!)} = ${sql.lit(value)}`.execute(
      database.owner,
    )
  server = await startServer(database.url)
})
afterAll(async () => {
  await server?.stop()
  await database?.drop()
})

/** What reads a growing table otherwise than by what it looks for. */
function wholeReads(plan: Plan, limited: boolean): string[] {
  const table = plan['Relation Name']
  const cond = plan['Index Cond'] ?? plan['Recheck Cond'] ?? ''
  // Of an index that begins with the workshop, the workshop alone is all of it.
  const looksFor = cond
    .replace(/\(?workshop_id = [^)]*\(?\)?\)?/g, '')
    .match(/NOT [a-z_]+|[a-z_]+ (=|>|<|>=|<=|~~|@>|&&)/)
  const isWhole = table !== undefined && GROWING.includes(table) && !looksFor && !limited
  const inside = plan['Node Type'] === 'Limit' || limited
  const keeps = !['Sort', 'Aggregate', 'Hash', 'WindowAgg'].includes(plan['Node Type'])
  return [
    ...(isWhole && plan['Node Type'] !== 'ModifyTable'
      ? [`${plan['Node Type']} of ${table}, ${plan['Index Name'] ?? 'no index'}, by ${cond || 'nothing'}`]
      : []),
    ...(plan.Plans ?? []).flatMap((p) => wholeReads(p, inside && keeps)),
  ]
}

/** What came in the last years and has been looked through, with photographs and causes that were kept. */
async function someYears(): Promise<void> {
  const { owner } = database
  await sql`
    update pour_summary s set created_at = n.at, ended_at = n.at, is_observed = n.nth > 40
    from (select pour_id, row_number() over (order by created_at desc) as nth,
      now() - row_number() over (order by created_at desc) * interval '8 hours' as at from pour_summary) n
    where n.pour_id = s.pour_id`.execute(owner)
  await sql`
    insert into photo (workshop_id, id, mould_id, caption, full_jpeg, thumb_jpeg, width_px, height_px)
    select workshop_id, gen_random_uuid(), id, '', '\\x00', '\\x00', 1, 1 from mould, generate_series(1, 20)`.execute(
    owner,
  )
  await sql`
    insert into heed (workshop_id, pour_id, subject, cause, at)
    select workshop_id, pour_id, 'mould:' || mould_id, 'no_tap', created_at from pour_summary where mould_id is not null`.execute(
    owner,
  )
  await sql`analyze`.execute(owner)
}

it('no query goes through all of a table that grows', async () => {
  const app = openDatabase(database.url, () => {})
  const db = app.workshop(database.workshopId)
  await loadDemo(db, Date.now())
  await fillWorkshop(database, POURS)
  await someYears()
  const get = async (path: string) => {
    const answer = await send(server, 'GET', path)
    expect(answer.status, path).toBe(200)
    return answer.json as never as { items: { id: string }[]; next?: string }
  }
  const page = await get('/api/pours?limit=5')
  const [pour] = page.items
  const bag = await db.selectFrom('bag').select('id').limit(1).executeTakeFirstOrThrow()
  const plaster = await db.selectFrom('plaster').select('id').limit(1).executeTakeFirstOrThrow()
  const mould = await db.selectFrom('mould').select('id').limit(1).executeTakeFirstOrThrow()
  for (const path of [
    '/api/bench',
    `/api/pours?limit=5&after=${page.next}`,
    '/api/pours?state=open',
    '/api/pours?verdict=failed',
    '/api/pours?search=ammonite',
    `/api/pours?tags=bag:${bag.id}`,
    `/api/pours/${pour!.id}`,
    `/api/pours/${pour!.id}/readings`,
    `/api/pours/last-mixed?mouldId=${mould.id}&plasterId=${plaster.id}`,
    '/api/figures',
    '/api/figures?months=1',
    '/api/heeds',
    `/api/learning?subject=bag:${bag.id}`,
    '/api/upkeep',
    '/api/time',
    '/api/moulds',
    '/api/bags',
    '/api/plasters',
    '/api/devices',
    '/api/recipes',
  ])
    await get(path).catch((error: unknown) => {
      throw new Error(`${path}: ${String(error)}`)
    })
  const id = randomUUID()
  await send(server, 'POST', '/api/pours', { id, plan: keepPlan(testPlan()) })
  const event = { id: randomUUID(), occurredAtMs: Date.now() - 1000, who: '', planRevision: 1 }
  await send(server, 'POST', `/api/pours/${id}/events`, { ...event, body: { type: 'mould_ready' } })
  await send(server, 'POST', `/api/pours/${id}/events`, {
    ...event,
    id: randomUUID(),
    body: { type: 'void', targetId: event.id },
  })
  await send(server, 'PUT', `/api/pours/${id}/plan`, { revision: 1, plan: { ...testPlan(), sparePct: 20 } })
  await app.close()

  const plans = [...(await logged()).matchAll(/duration: [\d.]+ ms {2}plan:\n((?:\t.*\n)+)/g)].map(
    ([, text]) => JSON.parse(text!.replace(/^\t/gm, '')) as { 'Query Text': string; Plan: Plan },
  )
  expect(plans.length).toBeGreaterThan(500)
  const found = new Map<string, string>()
  for (const { 'Query Text': text, Plan: plan } of plans)
    for (const whole of wholeReads(plan, false))
      found.set(`${whole} | ${text.replace(/\s+/g, ' ').slice(0, 300)}`, '')
  expect([...found.keys()]).toEqual([])
})
