import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Subject } from '../../core/learn'
import { keepPlan } from '../../core/pour'
import { openDatabase, type Db, type OpenDatabase } from '../../server/db/client'
import { clearWorkshop, loadDemo } from '../../server/demo'
import { DEMO_PLASTERS } from '../../server/demo/plasters'
import { DEMO_MOULDS } from '../../server/demo/moulds'
import { insertPhoto, reducePhoto } from '../../server/services/photos'
import { chooseLearning, learningOf } from '../../server/services/learnt/learning'
import { holdEvents } from '../../server/services/held'
import { offerDeviceKey } from '../../server/services/deviceKeys'
import { addPerson, giveNames, offerPairing, takePairing } from '../../server/services/people'
import { createPour, recordEvent } from '../../server/services/pours/pours'
import { PATHS } from '../../server/utils/apiPaths'
import { send as sendTo } from '../support/http'
import { startServer } from '../support/server'
import { withServer } from '../support/suite'
import { testPlan } from '../unit/plans'

/** There is one workshop without a sign-in; here a second stands beside it, whose rows the first must never meet. */
const suite = withServer()
const { send } = suite
const otherId = randomUUID()
let app: OpenDatabase
let mine: Db
let theirs: Db
/** One row of the other workshop in each table, by its path's name. */
const ids: Record<string, string> = {}
let pour: string
let event: string
let subject: Subject

/** Tables that hold anybody's rows, as the database lists them. */
const tables = async () =>
  (
    await sql<{ name: string }>`select table_name as name from information_schema.columns
      where column_name = 'workshop_id' and table_schema = 'public' order by 1`.execute(suite.database.owner)
  ).rows.map((r) => r.name)

async function dumpOf(workshopId: string) {
  const rows: Record<string, unknown[]> = {}
  for (const table of await tables())
    rows[table] = (
      await sql`select to_jsonb(t) as row from ${sql.table(table)} t where workshop_id = ${workshopId} order by 1::text`.execute(
        suite.database.owner,
      )
    ).rows
  return rows
}

beforeAll(async () => {
  const { owner, url } = suite.database
  await sql`insert into workshop (id, created_at) values (${otherId}, now() + interval '1 day')`.execute(
    owner,
  )
  await sql`insert into settings (workshop_id, workshop_name, system, scale_division_g, room_temp_c, room_rh_pct,
    air_speed_m_s, tap_temp_c) values (${otherId}, 'Theirs', 'metric', 1, 20, 50, 0.1, 15)`.execute(owner)
  app = openDatabase(url, () => {})
  mine = app.workshop(suite.database.workshopId)
  theirs = app.workshop(otherId)
  await loadDemo(theirs, Date.now())
  type OfIds =
    | 'bag'
    | 'bowl'
    | 'mould'
    | 'mould_set'
    | 'place'
    | 'plaster'
    | 'recipe'
    | 'settling'
    | 'spoon_test'
  const first = async (table: OfIds) =>
    (await theirs.selectFrom(table).select('id').orderBy('id').executeTakeFirstOrThrow()).id
  for (const [name, table] of [
    ['bags', 'bag'],
    ['bowls', 'bowl'],
    ['moulds', 'mould'],
    ['mould-sets', 'mould_set'],
    ['places', 'place'],
    ['plasters', 'plaster'],
    ['recipes', 'recipe'],
    ['spoon-tests', 'spoon_test'],
    ['settling', 'settling'],
  ] as const)
    ids[name] = await first(table)
  // Devices name themselves; the demo's are theirs alone here.
  ids.devices = 'shed-scale'
  // Work on a file is this process's, and of nobody else's workshop.
  ids.bundles = randomUUID()
  const tile = await theirs
    .selectFrom('pour_summary')
    .select('tags')
    .where('piece', 'like', 'Chart tile A7%')
    .executeTakeFirstOrThrow()
  subject = tile.tags.find((t): t is `bag:${string}` => t.startsWith('bag:'))!
  for (let left = 1; left > 0;) left = (await learningOf(theirs, subject)).pending
  await chooseLearning(theirs, subject, 'set_time', { off: false, sinceMs: 0, leftOut: [] })
  pour = ids.pours = randomUUID()
  event = randomUUID()
  await createPour(theirs, pour, keepPlan(testPlan()))
  await recordEvent(
    theirs,
    pour,
    { id: event, occurredAtMs: Date.now() - 1000, who: '', body: { type: 'mould_ready' } },
    Date.now(),
  )
  ids.photos = randomUUID()
  const picture = await sharp({ create: { width: 9, height: 6, channels: 3, background: '#246' } })
    .png()
    .toBuffer()
  const made = await reducePhoto(picture, 'mould')
  await theirs.transaction().execute((trx) => insertPhoto(trx, { mould: ids.moulds! }, ids.photos!, '', made))
  ids.people = randomUUID()
  await addPerson(theirs, ids.people, { name: 'Odile', role: 'caster' })
  await giveNames(theirs, ids.people, ['odile m'])
  const { token } = await offerPairing(theirs, otherId, ids.people)
  ids.sessions = (await takePairing(app, token, 'Phone')).id
  await offerPairing(theirs, otherId, ids.people)
  ids.held = ids.people
  await holdEvents(theirs, { personId: ids.people, device: 'Phone' }, [
    {
      pourId: pour,
      event: { id: randomUUID(), occurredAtMs: Date.now() - 1000, who: '', body: { type: 'mould_ready' } },
    },
  ])
  ids['device-keys'] = randomUUID()
  await offerDeviceKey(theirs, otherId, ids['device-keys'], 'Theirs')
  await theirs.insertInto('bundle_job').values({ id: ids.bundles!, address: 'http://127.0.0.1:1' }).execute()
  const kept = { subject: `mould:${ids.moulds!}`, cause: 'no_tap', at: new Date() } as const
  await theirs
    .insertInto('heed')
    .values({ pour_id: ids.pours!, ...kept })
    .execute()
})
afterAll(() => app.close())

it('what sees past row security is nobody’s to lead astray', async () => {
  const { rows } = await sql<{ name: string; owner: string; super: boolean; owns: number; path: string }>`
    select p.proname as name, r.rolname as owner, r.rolsuper or r.rolcanlogin as super, p.proconfig::text as path,
      (select count(*)::int from pg_class c where c.relowner = r.oid) as owns
    from pg_proc p join pg_roles r on r.oid = p.proowner
    where p.prosecdef and p.pronamespace = 'public'::regnamespace order by 1`.execute(suite.database.owner)
  expect(rows.map((r) => r.name)).toEqual([
    'account_named',
    'account_of',
    'clear_workshop',
    'count_pours',
    'home_workshop',
    'make_workshop',
    'places_of_account',
    'put_account',
    'search_pours',
    'workshops_here',
  ])
  for (const { owner, super: mighty, owns, path } of rows) {
    expect({ owner, mighty, owns }).toEqual({ owner: 'ripples_definer', mighty: false, owns: 0 })
    expect(path).toMatch(/search_path=pg_catalog, public, pg_temp/)
  }
  // A table of the same name before the workshop's own, whose rows call what the caller likes.
  const trial = mine.connection().execute(async (one) => {
    await sql`create function pg_temp.evil() returns text language sql as $$ select current_user::text $$`.execute(
      one,
    )
    await sql`create temporary view pour_summary as select pg_temp.evil() as searched`.execute(one)
    return sql`select * from search_pours('%', null, null, '{}', null, null, 10)`.execute(one)
  })
  await expect(trial).rejects.toThrow(/permission denied/)
  await expect(sql`create temporary table pour_summary (searched text)`.execute(mine)).rejects.toThrow(
    /permission denied/,
  )
  await expect(sql`create table public.mine (a int)`.execute(mine)).rejects.toThrow(/permission denied/)
})

it('no route reads or writes a row of another workshop', async () => {
  const before = await dumpOf(otherId)
  for (const [table, rows] of Object.entries(before))
    if (table !== 'plan_revision') expect(rows.length, table).toBeGreaterThan(0)
  const plaster = DEMO_PLASTERS.pottery
  const { plaster: _, ...described } = DEMO_MOULDS.ammonite
  const bodies: Record<string, object> = {
    'PUT /api/bags/:id': {
      revision: 1,
      bag: {
        plasterId: ids.plasters,
        name: 'x',
        boughtG: 1,
        price: null,
        openedOn: null,
        keeping: 'sealed',
        scoop: null,
        counted: null,
        usedUp: false,
        note: '',
      },
    },
    'POST /api/bags/:id/spoon-tests': {
      id: randomUUID(),
      atMs: Date.now(),
      consistency: 70,
      waterTempC: 20,
      stirS: 60,
      tookS: 900,
    },
    'POST /api/people/:id/pairing': { for: 'device' },
    'PUT /api/people/:id/names': { names: ['x'] },
    'PUT /api/people/:id': { name: 'x', role: 'keeper' },
    'PUT /api/devices/:id/use': { channel: 'mass', to: null },
    'POST /api/devices/:id/tare': { id: randomUUID(), zeroedAtMs: null },
    'PUT /api/places/:id': {
      revision: 1,
      place: {
        name: 'x',
        kind: 'still',
        air: { tempC: 20, rhPct: 50, speedMS: 0.1 },
        nightAir: null,
      },
    },
    'POST /api/bundles/:id/apply': { clashes: 'take' },
    'PUT /api/bowls/:id': { revision: 1, bowl: { name: 'x', volumeMl: 500, tareG: 1 } },
    'PUT /api/mould-sets/:id': {
      revision: 1,
      set: { name: 'x', members: [{ mouldId: ids.moulds, count: 1 }] },
    },
    'PUT /api/moulds/:id': { revision: 1, mould: { ...described, usualPlasterId: null } },
    'PUT /api/plasters/:id': { revision: 1, plaster },
    'PUT /api/recipes/:id': { revision: 1, recipe: { name: 'x', plan: testPlan() } },
    'PUT /api/pours/:id/plan': { revision: 1, plan: testPlan() },
    'POST /api/pours/:id/readings': {
      file: 'file.0123456789abcdef',
      batch: 0,
      readings: [1, 2, 3].map((n) => ({ atMs: n * 1000, tempC: 20 + n })),
    },
    'POST /api/pours/:id/events': {
      id: randomUUID(),
      occurredAtMs: Date.now() - 10,
      who: '',
      body: { type: 'void', targetId: event },
    },
  }
  const all = JSON.stringify(before)
  let asked = 0
  // What is one's own is asked for by whoever was let in (people.test.ts).
  for (const path of PATHS.filter((p) => p.includes(':id') && !p.startsWith('/api/me'))) {
    const name = path.split('/')[2]!
    for (const method of ['GET', 'PUT', 'POST', 'DELETE']) {
      const body = bodies[`${method} ${path}`]
      const answer = await send(
        method,
        path.replace(':id', ids[name]!),
        method === 'GET' ? undefined : (body ?? {}),
      )
      // 405: no such route; 400 or 415: a body of no use, for a route whose right one is above or wants a picture.
      if (answer.status === 405) continue
      asked += 1
      expect([400, 404, 415], `${method} ${path}`).toContain(answer.status)
      if (body || method === 'GET' || method === 'DELETE')
        expect([404, 400], `${method} ${path}`).toContain(answer.status)
    }
  }
  expect(asked).toBeGreaterThanOrEqual(20)
  for (const path of PATHS.filter(
    (p) => !p.includes(':id') && !['/api/changes', '/api/workshops'].includes(p),
  )) {
    const queries: Record<string, string> = {
      '/api/pours/last-mixed': `?mouldId=${ids.moulds}&plasterId=${ids.plasters}`,
      '/api/pours': `?tags=mould:${ids.moulds}`,
    }
    const query = queries[path] ?? ''
    const { json } = await send('GET', `${path}${query}`).catch(() => ({ json: {} }))
    const text = JSON.stringify(json)
    for (const id of [...Object.values(ids), event, otherId]) expect(text, path).not.toContain(id)
    expect(text).not.toContain('Saltmarsh')
  }
  // What is learnt there is nothing here, whoever asks for it by name.
  expect((await send('GET', `/api/learning?subject=${subject}`)).json).toEqual({
    subject,
    seen: {},
    choices: {},
    pending: 0,
  })
  expect(JSON.stringify(await dumpOf(otherId))).toBe(all)
})

it('the same id may be had in two workshops: one’s pour is not the other’s', async () => {
  const answer = await send('POST', '/api/pours', { id: pour, plan: testPlan('gc') })
  expect(answer).toMatchObject({ status: 200, json: { events: [], plan: { piece: 'A test piece' } } })
  const { id, events } = (await send('GET', `/api/pours/${pour}`)).json as never as {
    id: string
    events: object[]
  }
  expect([id, events]).toEqual([pour, []])
})

it('a browser goes into another workshop, and what it does there stays there', async () => {
  const port = new URL(suite.server.address).port
  const within = (id: string) => ({ cookie: `ripples_workshop_${port}=${id}` })
  const listed = (await send('GET', '/api/workshops')).json as never as { name: string; isHome: boolean }[]
  expect(listed).toMatchObject([
    { name: 'My workshop', isHome: true, isDemo: false },
    { name: 'Saltmarsh Shed', isHome: false, isDemo: false },
  ])
  const id = randomUUID()
  for (let twice = 0; twice < 2; twice++)
    expect((await send('POST', '/api/workshops', { id })).json).toEqual({ id })
  expect((await send('GET', '/api/workshops')).json).toHaveLength(3)
  const bowl = { revision: null, bowl: { name: 'Teal pail', volumeMl: 900, tareG: 90 } }
  expect((await send('PUT', `/api/bowls/${randomUUID()}`, bowl, within(id))).status).toBe(200)
  const bowls = async (headers = {}) => (await send('GET', '/api/bowls', undefined, headers)).json
  expect(await bowls(within(id))).toMatchObject([{ name: 'Teal pail' }])
  expect(await bowls()).toEqual([])
  expect(JSON.stringify(await bowls(within(otherId)))).not.toContain('Teal pail')
  // A window from before the browser went elsewhere.
  for (const [cookie, window] of [
    [id, 'home'],
    [id, otherId],
  ] as const)
    expect(
      await send('GET', '/api/bowls', undefined, { ...within(cookie), 'x-ripples-workshop': window }),
    ).toMatchObject({
      status: 409,
      json: { error: { code: 'elsewhere' } },
    })
  expect(await send('GET', '/api/bowls', undefined, { 'x-ripples-workshop': id })).toMatchObject({
    status: 409,
  })
  expect(await send('GET', `/api/changes?window=${id}`)).toMatchObject({ status: 409 })
  for (const nowhere of [randomUUID(), 'x', `${id}'--`])
    expect(await send('GET', '/api/bowls', undefined, within(nowhere))).toMatchObject({
      status: 410,
      json: { error: { code: 'no_workshop' } },
    })
})

it('the demo to look round in is made once, touches nobody’s, and only it is emptied', async () => {
  const before = await dumpOf(suite.database.workshopId)
  // Two processes asked at once, twice each.
  const other = await startServer(suite.database.url)
  const demos = await Promise.all(
    [other, suite.server, other, suite.server].map((at) =>
      sendTo(at, 'POST', '/api/workshops', { demo: true }),
    ),
  )
  await other.stop()
  const id = (demos[0]!.json as never as { id: string }).id
  expect(demos.map((d) => d.json)).toEqual(demos.map(() => ({ id })))
  const demo = app.workshop(id)
  const pours = async () =>
    (await demo.selectFrom('pour').select('id').orderBy('id').execute()).map((p) => p.id)
  const first = await pours()
  expect(first.length).toBeGreaterThan(20)
  await send('POST', '/api/workshops', { demo: true })
  expect(await pours()).toEqual(first)
  // Its clocks have run out: it is loaded afresh, in the same place.
  await sql`update pour set created_at = created_at - interval '1 day' where workshop_id = ${id}`.execute(
    suite.database.owner,
  )
  expect((await send('POST', '/api/workshops', { demo: true })).json).toEqual({ id })
  const second = await pours()
  expect(second).toHaveLength(first.length)
  expect(second.filter((p) => first.includes(p))).toEqual([])
  for (const db of [mine, theirs, app.unscoped])
    await expect(clearWorkshop(db)).rejects.toMatchObject({ code: '42501' })
  expect(JSON.stringify(await dumpOf(suite.database.workshopId))).toBe(JSON.stringify(before))
  expect(await app.homeWorkshop()).toBe(suite.database.workshopId)
})

describe('under the routes, the database itself holds the application to one workshop', () => {
  it('no table shows, changes or takes a row of another', async () => {
    const names = await tables()
    expect(names.length).toBeGreaterThanOrEqual(17)
    for (const table of names) {
      const at = sql.table(table)
      const count = async (db: Db) =>
        (
          await sql<{
            n: number
          }>`select count(*)::int as n from ${at} where workshop_id = ${otherId}`.execute(db)
        ).rows[0]!.n
      expect(await count(mine), table).toBe(0)
      // Whoever says nothing of a workshop has none.
      expect(await count(app.unscoped), table).toBe(0)
      for (const statement of [
        sql`update ${at} set workshop_id = workshop_id where workshop_id = ${otherId}`,
        sql`delete from ${at} where workshop_id = ${otherId}`,
      ]) {
        // Refused outright where the application may not do it even to its own.
        const done = await statement.execute(mine).catch((error: { code: string }) => error)
        if ('code' in done) expect(done.code, table).toBe('42501')
        else expect(Number(done.numAffectedRows ?? 0n), table).toBe(0)
      }
    }
    await expect(
      sql`insert into bowl (workshop_id, id, name, volume_ml, tare_g) values (${otherId}, ${randomUUID()}, 'x', 1, 1)`.execute(
        mine,
      ),
    ).rejects.toMatchObject({ code: '42501' })
    await expect(sql`update bowl set workshop_id = ${otherId}`.execute(theirs)).resolves.toBeDefined()
    await expect(
      sql`update bowl set workshop_id = ${suite.database.workshopId}`.execute(theirs),
    ).rejects.toMatchObject({ code: '42501' })
    await expect(sql`set role ripples`.execute(mine)).rejects.toMatchObject({ code: '42501' })
    await expect(sql`alter table bowl disable row level security`.execute(mine)).rejects.toMatchObject({
      code: '42501',
    })
  })

  it('a search finds only its own', async () => {
    const found = (db: Db) =>
      sql`select * from search_pours('%', null, null, '{}', null, null, 100)`
        .execute(db)
        .then((r) => r.rows.length)
    expect(await found(theirs)).toBeGreaterThan(10)
    expect(await found(mine)).toBeLessThan(5)
    expect(await found(app.unscoped)).toBe(0)
  })

  it('every key, and every way from one table to another, has the workshop in it', async () => {
    const { rows } = await sql<{ tab: string; rule: string }>`
      select conrelid::regclass::text as tab, pg_get_constraintdef(oid) as rule from pg_constraint
      where connamespace = 'public'::regnamespace and contype in ('p', 'f', 'u')
        and conrelid::regclass::text not in ('workshop', 'kysely_migration', 'kysely_migration_lock') order by 1, 2`.execute(
      suite.database.owner,
    )
    expect(rows.length).toBeGreaterThan(30)
    // An account is of no workshop: the application sees none of it but by functions (`server/services/accounts.ts`).
    expect(rows.filter((r) => !r.rule.includes('workshop_id'))).toEqual([
      { tab: 'account', rule: 'PRIMARY KEY (id)' },
      { tab: 'person', rule: 'FOREIGN KEY (account_id) REFERENCES account(id)' },
    ])
    await expect(sql`select from account`.execute(mine)).rejects.toThrow(/permission denied/)
  })
})
