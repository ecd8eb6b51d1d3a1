import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { expect, it } from 'vitest'
import type { MouldBundle, MouldCard, MouldInput } from '../../shared/moulds'
import { DEMO_MOULDS } from '../../server/demo/moulds'
import { withServer } from '../support/suite'

const suite = withServer()
const { send } = suite

const { plaster: _, ...described } = DEMO_MOULDS.ammonite
const mouldOf = (name: string): MouldInput => ({ ...(described as MouldInput), name, usualPlasterId: null })

it('a full line is told to come back, at once; nobody hangs, and who waited is served', async () => {
  const { owner } = suite.database
  let letGo!: () => void
  const held = new Promise<void>((resolve) => (letGo = resolve))
  let locked!: () => void
  const isLocked = new Promise<void>((resolve) => (locked = resolve))
  // Whoever asks for a bowl takes a connection and waits: twelve do, five hundred stand in line.
  const holding = owner.transaction().execute(async (trx) => {
    await sql`lock table bowl in access exclusive mode`.execute(trx)
    locked()
    await held
  })
  await isLocked
  const asked = Array.from({ length: 700 }, async () => {
    const answer = await fetch(`${suite.server.address}/api/bowls`)
    await answer.arrayBuffer()
    return { status: answer.status, retryAfter: answer.headers.get('retry-after') }
  })
  const turnedAway = await Promise.race(asked)
  expect(turnedAway).toEqual({ status: 503, retryAfter: '1' })
  letGo()
  await holding
  const answers = await Promise.all(asked)
  const served = answers.filter((a) => a.status === 200).length
  expect(served).toBeGreaterThanOrEqual(500)
  expect(answers.filter((a) => a.status === 503 && a.retryAfter === '1')).toHaveLength(700 - served)
})

it('an import and edits of the same moulds and sets never stand in each other’s way', async () => {
  const { owner } = suite.database
  const deadlocks = async () =>
    (
      await sql<{
        n: number
      }>`select deadlocks::int as n from pg_stat_database where datname = current_database()`.execute(owner)
    ).rows[0]!.n
  const before = await deadlocks()
  const ids = Array.from({ length: 8 }, () => randomUUID())
  for (const [i, id] of ids.entries())
    expect(
      (await send('PUT', `/api/moulds/${id}`, { revision: null, mould: mouldOf(`Shared ${i}`) })).status,
    ).toBe(200)
  const setId = randomUUID()
  const membersOf = (of: readonly string[]) => of.map((mouldId) => ({ mouldId, count: 1 }))
  const putSet = (revision: number | null, of: readonly string[]) =>
    send('PUT', `/api/mould-sets/${setId}`, { revision, set: { name: 'Both', members: membersOf(of) } })
  expect((await putSet(null, ids)).status).toBe(200)

  const { usualPlasterId: _none, ...inFile } = mouldOf('In the file')
  const bundle: MouldBundle = {
    format: 'nine-ripples.moulds',
    version: 1,
    moulds: [...ids].reverse().map((id) => ({ ...inFile, find: null, id, usualPlaster: null, photos: [] })),
    sets: [{ id: randomUUID(), name: 'In the file', members: membersOf([...ids].reverse()) }],
  }
  const statuses: number[] = []
  const edit = async (id: string) => {
    const now = ((await send('GET', `/api/moulds?limit=100`)).json as never as { items: MouldCard[] }).items
    const { revision } = now.find((m) => m.id === id)!
    statuses.push((await send('PUT', `/api/moulds/${id}`, { revision, mould: mouldOf(randomUUID()) })).status)
  }
  for (let round = 0; round < 6; round++) {
    const shuffled = round % 2 ? ids : [...ids].reverse()
    const work = [
      send('POST', '/api/moulds/import', { ...bundle, sets: [{ ...bundle.sets[0]!, id: randomUUID() }] }),
      send('POST', '/api/moulds/import', bundle),
      ...[shuffled, [...shuffled].reverse()].map((of) => putSet(round + 1, of)),
    ]
    await Promise.all([...ids.map(edit), ...work.map(async (w) => statuses.push((await w).status))])
  }
  // Somebody else may have been quicker; nobody was in the way.
  expect([...new Set(statuses)].filter((s) => s !== 200 && s !== 409)).toEqual([])
  expect(await deadlocks()).toBe(before)
})
