import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { afterAll, afterEach, beforeAll, expect, it } from 'vitest'
import { pruneChanges } from '../../server/services/changes'
import { createTestDatabase } from '../support/database'
import { openLiveStream, type LiveStream } from '../support/liveStream'
import { startServer, type TestServer } from '../support/server'
import { testPlan } from '../unit/plans'

let database: Awaited<ReturnType<typeof createTestDatabase>>
let first: TestServer
let second: TestServer
const streams: LiveStream[] = []

beforeAll(async () => {
  database = await createTestDatabase()
  ;[first, second] = await Promise.all([startServer(database.url), startServer(database.url)])
})
afterEach(() => streams.splice(0).forEach((s) => s.close()))
afterAll(async () => {
  await Promise.all([first?.stop(), second?.stop()])
  await database?.drop()
})

async function follow(server: TestServer, since?: number) {
  const stream = await openLiveStream(server.address, since)
  streams.push(stream)
  return stream
}
async function post(server: TestServer, path: string, body: object) {
  const answer = await fetch(`${server.address}${path}`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(body),
  })
  expect(answer.status).toBe(200)
}
async function newPour(server: TestServer) {
  const id = randomUUID()
  await post(server, '/api/pours', { id, plan: testPlan() })
  return id
}
const listeners = () =>
  sql<{ pid: number }>`select pid from pg_stat_activity
    where datname = current_database() and query ilike 'listen nine_ripples_change'`.execute(database.db)

it('a change through one server shows in a window of the other, within a second', async () => {
  const stream = await follow(second)
  const started = performance.now()
  const id = await newPour(first)
  await stream.next((c) => c.topic === 'pour' && c.id === id)
  expect(performance.now() - started).toBeLessThan(1000)
  const seen = await fetch(`${second.address}/api/pours/${id}`)
  expect(seen.status).toBe(200)
})

it('a window that was away catches up from where it had been, in order and once', async () => {
  const before = (await follow(first)).hello.seq
  const ids = [await newPour(first), await newPour(second), await newPour(first)]
  const back = await follow(second, before)
  await back.next((c) => c.id === ids[2])
  expect(back.hello.reset).toBe(false)
  expect(back.received.map((c) => c.id)).toEqual(ids)
  const seqs = back.received.map((c) => c.seq)
  expect(seqs).toEqual([...new Set(seqs)].sort((a, b) => a - b))
})

it('a window from another life of the database is told to start over', async () => {
  const stream = await follow(first, 1_000_000)
  expect(stream.hello.reset).toBe(true)
})

it('a window away for longer than the log is kept is told to start over; one away for less catches up', async () => {
  const long = (await follow(first)).hello.seq
  await newPour(first)
  await sql`update change set at = at - interval '8 days'`.execute(database.owner)
  const short = (await follow(first)).hello.seq
  const id = await newPour(first)
  const week = 7 * 24 * 3_600_000
  expect(await pruneChanges(database.db, week, Date.now())).toBeGreaterThan(0)
  expect((await follow(second, long - 1)).hello.reset).toBe(true)
  const back = await follow(second, short)
  await back.next((c) => c.id === id)
  expect(back.hello.reset).toBe(false)
})

it('what changed comes as data: an event as itself, a card as it is now, one that is gone as gone', async () => {
  const stream = await follow(second)
  const pour = await newPour(first)
  const made = await stream.next((c) => c.topic === 'pour' && c.id === pour)
  expect(made.value).toMatchObject({ id: pour, events: [], plan: { piece: 'A test piece' } })
  const event = {
    id: randomUUID(),
    occurredAtMs: Date.now() - 10,
    who: 'Mina',
    body: { type: 'mould_ready' },
  }
  await post(first, `/api/pours/${pour}/events`, event)
  const happened = await stream.next((c) => c.topic === 'event' && c.id === pour)
  expect(happened.value).toMatchObject(event)
  const bowl = randomUUID()
  const send = (method: string, body?: object) =>
    fetch(`${first.address}/api/bowls/${bowl}`, {
      method,
      headers: { 'content-type': 'application/json' },
      ...(body ? { body: JSON.stringify(body) } : {}),
    })
  await send('PUT', { revision: null, bowl: { name: 'Basin', volumeMl: 900, tareG: 10 } })
  const put = await stream.next((c) => c.topic === 'bowl' && c.value !== null)
  expect(put.value).toEqual({ id: bowl, revision: 1, name: 'Basin', volumeMl: 900, tareG: 10 })
  await send('DELETE')
  await stream.next((c) => c.topic === 'bowl' && c.id === bowl && c.value === null)
})

it('the live connection may be killed: it comes back, and nothing is missed', async () => {
  const stream = await follow(first)
  const { rows } = await listeners()
  expect(rows.length).toBeGreaterThan(0)
  await sql`select pg_terminate_backend(pid) from pg_stat_activity
    where datname = current_database() and query ilike 'listen nine_ripples_change'`.execute(database.db)
  // Made while the server is not listening.
  const lost = randomUUID()
  await sql`insert into pour (id, plan) values (${lost}, ${JSON.stringify(testPlan())})`.execute(database.db)
  await stream.next((c) => c.id === lost)
  const id = await newPour(first)
  await stream.next((c) => c.id === id)
})

it('every connection to the database may be killed: requests work again', async () => {
  await sql`select pg_terminate_backend(pid) from pg_stat_activity
    where datname = current_database() and pid <> pg_backend_pid()`.execute(database.db)
  const deadline = performance.now() + 10_000
  let status = 0
  while (status !== 200 && performance.now() < deadline) {
    const answer = await fetch(`${first.address}/api/health`)
    status = answer.status
    expect([200, 503]).toContain(status)
  }
  expect(status).toBe(200)
})

it('many writers at once: no window misses a change', async () => {
  const stream = await follow(second)
  const ids = await Promise.all(Array.from({ length: 40 }, (_, i) => newPour(i % 2 ? first : second)))
  await Promise.all(ids.map((id) => stream.next((c) => c.id === id)))
  const seqs = stream.received.map((c) => c.seq)
  expect(seqs).toEqual([...seqs].sort((a, b) => a - b))
})

it('stops cleanly and soon when asked, with a window open', async () => {
  const server = await startServer(database.url)
  const stream = await follow(server)
  const { tookMs, code } = await server.stop('SIGTERM')
  await stream.ended
  expect(code).toBe(0)
  expect(tookMs).toBeLessThan(5000)
  const lines = server.log().trim().split('\n')
  expect(lines.map((l) => (JSON.parse(l) as { msg: string }).msg)).toEqual(['started', 'stopped'])
})

it('without a database it says so in plain lines and answers 503', async () => {
  const away = new URL(database.url)
  away.port = '1'
  const server = await startServer(away.href, { healthStatus: 503 })
  const answer = await fetch(`${server.address}/api/pours`)
  expect(answer.status).toBe(503)
  expect(await answer.json()).toEqual({ error: { code: 'unavailable', fields: [] } })
  expect(server.log()).toContain('request failed')
  await server.stop()
})
