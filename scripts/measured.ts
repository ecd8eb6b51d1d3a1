import { randomUUID } from 'node:crypto'
import type { TestServer } from '../tests/support/server'
import { testPlan } from '../tests/unit/plans'

/** What the benchmarks of the server share. */

/** What, measured, its unit, what must hold, and what it was with 100 pours where that is the question. */
export interface Measured {
  what: string
  value: number
  unit: string
  most: number
  with100?: number
}

/** The value that this share of them is under. */
export const rank = (times: readonly number[], share: number) =>
  [...times].sort((a, b) => a - b)[Math.min(times.length - 1, Math.floor(times.length * share))]!

export const post = (server: TestServer, path: string, body: object | string) =>
  fetch(server.address + path, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: typeof body === 'string' ? body : JSON.stringify(body),
  })

export async function newPour(server: TestServer): Promise<string> {
  const id = randomUUID()
  const answer = await post(server, '/api/pours', { id, plan: testPlan() })
  if (!answer.ok) throw new Error(`new pour: ${answer.status}`)
  await answer.arrayBuffer()
  return id
}
export const note = () => ({
  id: randomUUID(),
  occurredAtMs: Date.now() - 1000,
  who: '',
  planRevision: 1,
  body: { type: 'note', text: 'measured' },
})
