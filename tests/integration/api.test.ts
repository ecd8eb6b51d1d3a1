import { randomUUID } from 'node:crypto'
import { readdirSync } from 'node:fs'
import { request } from 'node:http'
import { describe, expect, it } from 'vitest'
import type { CastPage, PourRecord } from '../../shared/records'
import { outlookFrom } from '../../core/pour'
import type { SettingsRecord } from '../../shared/contracts'
import { PATHS } from '../../server/utils/apiPaths'
import { withServer } from '../support/suite'
import { testPlan } from '../unit/plans'

const suite = withServer()
const { send } = suite

const newPour = async (plan = testPlan()) => {
  const id = randomUUID()
  expect(await send('POST', '/api/pours', { id, plan })).toMatchObject({
    status: 200,
    json: { id, revision: 1 },
  })
  return id
}
const eventOf = (body: object, occurredAtMs = Date.now() - 1000) => ({
  id: randomUUID(),
  occurredAtMs,
  who: 'Mina',
  body,
})

describe('events', () => {
  it('sent twice are one row and the same answer', async () => {
    const pourId = await newPour()
    const event = eventOf({ type: 'weighed', what: 'water', massG: 700 })
    const first = await send('POST', `/api/pours/${pourId}/events`, event)
    const second = await send('POST', `/api/pours/${pourId}/events`, event)
    expect(first.status).toBe(200)
    expect(second).toEqual(first)
    const all = await Promise.all(
      Array.from({ length: 8 }, () => send('POST', `/api/pours/${pourId}/events`, event)),
    )
    expect(all.map((a) => a.json)).toEqual(Array(8).fill(first.json))
    const { json } = await send('GET', `/api/pours/${pourId}`)
    expect((json as unknown as PourRecord).events).toHaveLength(1)
  })

  it('with a used id and another content are refused, in the same pour and in another', async () => {
    const [pourId, otherId] = [await newPour(), await newPour()]
    const event = eventOf({ type: 'note', text: 'one' })
    await send('POST', `/api/pours/${pourId}/events`, event)
    const changed = { ...event, body: { type: 'note', text: 'two' } }
    const conflict = { status: 409, json: { error: { code: 'event_id_conflict' } } }
    expect(await send('POST', `/api/pours/${pourId}/events`, changed)).toMatchObject(conflict)
    expect(await send('POST', `/api/pours/${otherId}/events`, event)).toMatchObject(conflict)
  })

  it('can be taken back, also before they arrive and in any case of letters, within their own pour', async () => {
    const [pourId, otherId] = [await newPour(), await newPour()]
    const done = eventOf({ type: 'mould_ready' })
    const undo = eventOf({ type: 'void', targetId: done.id.toUpperCase() })
    expect((await send('POST', `/api/pours/${pourId}/events`, undo)).status).toBe(200)
    expect((await send('POST', `/api/pours/${pourId.toUpperCase()}/events`, done)).status).toBe(200)
    const again = { ...done, id: done.id.toUpperCase() }
    expect((await send('POST', `/api/pours/${pourId}/events`, again)).json).toMatchObject({ id: done.id })
    const { json } = await send('GET', `/api/pours/${pourId}`)
    const { plan, events } = json as unknown as PourRecord
    expect(outlookFrom(plan, events).live).toEqual([])
    expect(await send('POST', `/api/pours/${otherId}/events`, { ...undo, id: randomUUID() })).toMatchObject({
      status: 409,
      json: { error: { code: 'unknown_event' } },
    })
    const undoUndo = eventOf({ type: 'void', targetId: undo.id })
    expect(await send('POST', `/api/pours/${pourId}/events`, undoUndo)).toMatchObject({
      status: 409,
      json: { error: { code: 'cannot_void_void' } },
    })
  })

  it('of a device whose clock is an hour ahead are set right and kept, and sent again are the same', async () => {
    const pourId = await newPour()
    const hourMs = 3_600_000
    const event = eventOf({ type: 'mould_ready' }, Date.now() + hourMs)
    expect((await send('POST', `/api/pours/${pourId}/events`, event)).json).toMatchObject({
      error: { code: 'time_in_future' },
    })
    const put = (shiftMs: number) => send('POST', `/api/pours/${pourId}/events`, { ...event, shiftMs })
    const kept = await put(-hourMs)
    expect(kept.json).toMatchObject({ id: event.id, occurredAtMs: event.occurredAtMs - hourMs })
    // The clock set once more in between: still the same event.
    expect((await put(-hourMs + 40)).json).toEqual(kept.json)
  })
})

describe('plans', () => {
  it('change until the weighing, from the version that was seen', async () => {
    const id = await newPour()
    const change = (revision: number, piece: string) =>
      send('PUT', `/api/pours/${id}/plan`, { revision, plan: testPlan('pop', { piece }) })
    expect(await change(1, 'second')).toMatchObject({
      status: 200,
      json: { revision: 2, plan: { piece: 'second' } },
    })
    expect(await change(1, 'third')).toMatchObject({ status: 409, json: { error: { code: 'stale_plan' } } })
    const weighed = eventOf({ type: 'weighed', what: 'water', massG: 1 })
    await send('POST', `/api/pours/${id}/events`, weighed)
    expect(await change(2, 'fourth')).toMatchObject({ status: 409, json: { error: { code: 'plan_locked' } } })
    await send('POST', `/api/pours/${id}/events`, eventOf({ type: 'void', targetId: weighed.id }))
    expect((await change(2, 'fifth')).status).toBe(200)
  })

  it('two changes at once: one wins, one is told', async () => {
    const id = await newPour()
    const both = await Promise.all(
      ['a', 'b'].map((piece) =>
        send('PUT', `/api/pours/${id}/plan`, { revision: 1, plan: testPlan('pop', { piece }) }),
      ),
    )
    expect(both.map((r) => r.status).sort()).toEqual([200, 409])
  })

  it('the same new pour twice is one, another plan under its id is refused', async () => {
    const id = await newPour()
    expect((await send('POST', '/api/pours', { id, plan: testPlan() })).status).toBe(200)
    expect(await send('POST', '/api/pours', { id, plan: testPlan('gc') })).toMatchObject({
      status: 409,
      json: { error: { code: 'pour_id_conflict' } },
    })
  })
})

describe('lists', () => {
  it('page, search and filter', async () => {
    const tag = randomUUID().slice(0, 8)
    const ids: string[] = []
    for (let i = 0; i < 5; i++) ids.push(await newPour(testPlan('pottery', { piece: `100%_${tag} ${i}` })))
    await send(
      'POST',
      `/api/pours/${ids[0]}/events`,
      eventOf({ type: 'finished', verdict: 'good', reason: '' }),
    )
    const undone = eventOf({ type: 'finished', verdict: 'failed', reason: '' })
    await send('POST', `/api/pours/${ids[1]}/events`, undone)
    await send('POST', `/api/pours/${ids[1]}/events`, eventOf({ type: 'void', targetId: undone.id }))

    const list = async (query: string) =>
      (await send('GET', `/api/pours?q=${encodeURIComponent(`100%_${tag}`)}&${query}`))
        .json as unknown as CastPage
    const first = await list('limit=2')
    const rest = await list(`limit=2&after=${encodeURIComponent(first.next!)}`)
    const last = await list(`limit=2&after=${encodeURIComponent(rest.next!)}`)
    expect(first).toMatchObject({ total: 5 })
    expect([first, rest, last].flatMap((p) => p.items.map((c) => c.id))).toEqual([...ids].reverse())
    expect(last.next).toBeUndefined()
    expect((await list('state=open')).total).toBe(4)
    expect((await list('state=closed')).items).toMatchObject([{ id: ids[0], verdict: 'good', open: false }])
    expect((await list('verdict=failed')).total).toBe(0)
    // One or two letters are looked for where words begin.
    const short = async (q: string) =>
      ((await send('GET', `/api/pours?q=${q}`)).json as unknown as CastPage).total
    expect(await short('10')).toBeGreaterThanOrEqual(5)
    expect(await short('te')).toBeGreaterThan(0)
    expect(await short('es')).toBe(0)
    // A percent sign is a character to find, not a wildcard.
    expect((await send('GET', '/api/pours?q=%25%25nothing')).json).toMatchObject({ total: 0 })
  })
})

describe('bad input gets a code and a field, and never a 500', () => {
  const plan = testPlan()
  const bodies: [what: string, path: string, body: unknown, code: string, field?: string][] = [
    ['no JSON', '/api/pours', '{"id":', 'invalid_json'],
    [
      'text for a number',
      '/api/pours',
      { id: randomUUID(), plan: { ...plan, sparePct: 'ten' } },
      'invalid_input',
      'plan.sparePct',
    ],
    [
      'a negative volume',
      '/api/pours',
      { id: randomUUID(), plan: { ...plan, mould: { ...plan.mould, cavityMl: -5 } } },
      'invalid_input',
      'plan.mould.cavityMl',
    ],
    [
      'zero volume',
      '/api/pours',
      { id: randomUUID(), plan: { ...plan, mould: { ...plan.mould, cavityMl: 0 } } },
      'invalid_input',
      'plan.mould.cavityMl',
    ],
    [
      'an absurd volume',
      '/api/pours',
      { id: randomUUID(), plan: { ...plan, mould: { ...plan.mould, cavityMl: 1e12 } } },
      'invalid_input',
      'plan.mould.cavityMl',
    ],
    [
      'infinity',
      '/api/pours',
      JSON.stringify({ id: randomUUID(), plan: { ...plan, soakS: 777 } }).replace('777', '1e999'),
      'invalid_input',
      'plan.soakS',
    ],
    [
      'NaN',
      '/api/pours',
      JSON.stringify({ id: randomUUID(), plan: { ...plan, soakS: 777 } }).replace('777', 'NaN'),
      'invalid_json',
    ],
    ['null', '/api/pours', null, 'invalid_input'],
    [
      'a mix that cannot harden',
      '/api/pours',
      { id: randomUUID(), plan: { ...plan, consistency: 16 } },
      'invalid_input',
      'plan.consistency',
    ],
    ['an id that is none', '/api/pours', { id: '7', plan }, 'invalid_input', 'id'],
    ['an unknown event', '/api/pours/ID/events', eventOf({ type: 'exploded' }), 'invalid_input', 'body.type'],
    [
      'a negative mass',
      '/api/pours/ID/events',
      eventOf({ type: 'weighing', massG: -1 }),
      'invalid_input',
      'body.massG',
    ],
    [
      'tomorrow',
      '/api/pours/ID/events',
      eventOf({ type: 'poured' }, Date.now() + 86_400_000),
      'time_in_future',
      'occurredAtMs',
    ],
    [
      'a date past the calendar',
      '/api/pours/ID/events',
      eventOf({ type: 'poured' }, 9e15),
      'invalid_input',
      'occurredAtMs',
    ],
    [
      'a zero byte in a note',
      '/api/pours/ID/events',
      eventOf({ type: 'note', text: 'a\u0000b' }),
      'invalid_input',
      'body.text',
    ],
  ]
  it.each(bodies)('%s', async (_, path, body, code, field) => {
    const pourId = path.includes('ID') ? await newPour() : ''
    const answer = await send('POST', path.replace('ID', pourId), body)
    expect(answer.status).toBeGreaterThanOrEqual(400)
    expect(answer.status).toBeLessThan(500)
    expect(answer.json).toMatchObject({ error: { code } })
    if (field) expect(JSON.stringify(answer.json)).toContain(`"path":"${field}"`)
    if (pourId) expect((await send('GET', `/api/pours/${pourId}`)).json).toMatchObject({ events: [] })
  })

  it('unknown and impossible ids are not found', async () => {
    for (const id of [randomUUID(), 'x', "1'--", '%00', '..%2f..']) {
      expect(await send('GET', `/api/pours/${id}`)).toMatchObject({ status: 404 })
      expect((await send('POST', `/api/pours/${id}/events`, eventOf({ type: 'poured' }))).status).toBe(404)
    }
  })
  it('another content type, as a plain form on another site would send, is refused', async () => {
    const answer = await send('POST', '/api/pours', JSON.stringify({ id: randomUUID(), plan }), {
      'content-type': 'text/plain',
    })
    expect(answer).toMatchObject({ status: 415, json: { error: { code: 'wrong_content_type' } } })
  })
  it('a huge body is refused, with its length said or not', async () => {
    const huge = JSON.stringify({ id: randomUUID(), plan: { ...plan, piece: 'x'.repeat(2_000_000) } })
    expect(await send('POST', '/api/pours', huge)).toMatchObject({ status: 413 })
    const chunked = await new Promise<number>((resolve, reject) => {
      const post = request(`${suite.server.address}/api/pours`, {
        method: 'POST',
        headers: { 'content-type': 'application/json' },
      })
      post.on('response', (r) => {
        r.resume()
        resolve(r.statusCode!)
      })
      post.on('error', reject)
      for (let i = 0; i < huge.length; i += 65_536) post.write(huge.slice(i, i + 65_536))
      post.end()
    })
    expect(chunked).toBe(413)
  })
  it.each(['limit=0', 'limit=101', 'after=there', 'limit=ten', 'state=lost', 'verdict=perfect'])(
    'list with %s',
    async (query) =>
      expect(await send('GET', `/api/pours?${query}`)).toMatchObject({
        status: 400,
        json: { error: { code: 'invalid_input' } },
      }),
  )
  it('settings out of range keep the old ones', async () => {
    const before = (await send('GET', '/api/settings')).json
    const { revision, ...settings } = before as never as SettingsRecord
    const put = (revision: number, change: object) =>
      send('PUT', '/api/settings', { revision, settings: { ...settings, ...change } })
    expect((await put(revision, { scaleDivisionG: 0 })).status).toBe(400)
    expect((await send('GET', '/api/settings')).json).toEqual(before)
    // Of two who change what they saw, the second is told what is there now.
    const changed = await put(revision, { workshopName: 'Mine' })
    expect(changed.json).toEqual({ ...before, workshopName: 'Mine', revision: revision + 1 })
    expect(await put(revision, { workshopName: 'Theirs' })).toMatchObject({
      status: 409,
      json: { error: { code: 'stale_card', current: changed.json } },
    })
    expect((await put(revision, { workshopName: 'Mine' })).status).toBe(200)
  })
})

it('a name that is not this machine’s own is refused', async () => {
  const { hostname, port } = new URL(suite.server.address)
  const status = (host: string) =>
    new Promise<number>((resolve, reject) => {
      request({ hostname, port, path: '/api/pours', headers: { host } }, (r) => {
        r.resume()
        resolve(r.statusCode!)
      })
        .on('error', reject)
        .end()
    })
  expect(await status(`localhost:${port}`)).toBe(200)
  expect(await status('elsewhere.example')).toBe(421)
})

it.each(['plasters', 'bags', 'moulds'])('the list of %s pages', async (list) => {
  expect((await send('GET', `/api/${list}?limit=1`)).json).toEqual({ items: [] })
  expect((await send('GET', `/api/${list}?limit=0`)).status).toBe(400)
})

it('answers carry the headers that keep strangers out, and nothing internal', async () => {
  const page = await fetch(suite.server.address)
  expect(page.headers.get('content-security-policy')).toContain("default-src 'self'")
  expect(page.headers.get('x-content-type-options')).toBe('nosniff')
  const failed = JSON.stringify((await send('POST', '/api/pours', '{')).json)
  expect(failed).not.toMatch(/stack|node_modules|at /)
})

it('what no route answers is said as such, never with the application’s page', async () => {
  for (const [method, path, status, code] of [
    ['POST', '/api/nowhere', 404, 'not_found'],
    ['GET', '/api/pours/x/y/z', 404, 'not_found'],
    ['DELETE', '/api/pours', 405, 'method_not_allowed'],
    ['PUT', `/api/pours/${randomUUID()}/events`, 405, 'method_not_allowed'],
    ['POST', '/api/time', 405, 'method_not_allowed'],
  ] as const)
    expect(await send(method, path, method === 'GET' ? undefined : {})).toMatchObject({
      status,
      json: { error: { code } },
    })
  const files = readdirSync(new URL('../../server/api', import.meta.url), {
    recursive: true,
    encoding: 'utf8',
  })
  const routes = files
    .filter((f) => f.endsWith('.ts') && f !== '[...].ts')
    .map((f) => `/api/${f.replace(/(\/index)?\.(get|put|post|delete)\.ts$/, '').replaceAll('[id]', ':id')}`)
  expect([...new Set(routes)].sort()).toEqual(PATHS)
})

it.each([
  ['a page of another site', { 'sec-fetch-site': 'cross-site' }],
  ['a sandboxed page', { origin: 'null' }],
  ['a page of another port', { origin: 'http://127.0.0.1:1' }],
])('%s gets nothing', async (_, headers) => {
  const id = randomUUID()
  expect((await send('POST', '/api/pours', { id, plan: testPlan() }, headers)).status).toBe(403)
  expect((await send('GET', '/api/moulds/export', undefined, headers)).status).toBe(403)
  expect((await send('GET', `/api/pours/${id}`)).status).toBe(404)
  const own = { 'sec-fetch-site': 'same-origin', origin: suite.server.address }
  const answer = await fetch(`${suite.server.address}/api/health`, { headers: own })
  expect([answer.status, answer.headers.get('cross-origin-resource-policy')]).toEqual([200, 'same-origin'])
})
