import { randomUUID } from 'node:crypto'
import type { Page } from '@playwright/test'
import { keepPlan, outlookFrom, type EventBody, type PourPlan } from '../../core/pour'
import { expect } from './fixtures'

export interface Server {
  address: string
}
/** What happened, minutes after the mould was full. */
export type Told = [atMin: number, body: EventBody]
const MIN = 60_000

/** A run as its plan has it, up to the full mould, bowl after bowl. */
export function asPlanned(plan: PourPlan): Told[] {
  const { batches } = keepPlan(plan).kept
  const weighed = batches.flatMap(({ waterG, powderG }, batch): EventBody[] => [
    { type: 'weighed', what: 'water', massG: waterG, batch },
    { type: 'weighed', what: 'powder', massG: powderG, batch },
  ])
  const mixed = batches.flatMap((_, batch): Told[] => {
    const fullMin = -10 * (batches.length - 1 - batch)
    return [
      [fullMin - 6, { type: 'sift_started', batch }],
      [fullMin - 5, { type: 'sifted', batch }],
      [fullMin - 3, { type: 'soaked', batch }],
      [fullMin - 1, { type: 'stirred', manner: 'hand', batch }],
      [fullMin, { type: 'poured', batch }],
    ]
  })
  const beganMin = -9 - 10 * (batches.length - 1)
  return [
    [beganMin, { type: 'mould_ready' }],
    ...weighed.map((body, i): Told => [beganMin + 1 + i / 10, body]),
    ...mixed,
    [1, { type: 'tapped', batch: batches.length - 1 }],
  ]
}

/** A pour with what has happened to it, sent as a bench would. @param zeroMs when the mould was full. */
export async function sendPour(
  page: Page,
  { address }: Server,
  plan: PourPlan,
  told: readonly Told[],
  zeroMs: number,
) {
  const id = randomUUID()
  const kept = keepPlan(plan)
  const made = await page.request.post(`${address}/api/pours`, { data: { id, plan: kept } })
  expect(made.ok()).toBe(true)
  const events = told.map(([atMin, body]) => ({
    id: randomUUID(),
    occurredAtMs: Math.round(zeroMs + atMin * MIN),
    who: 'Mina',
    body,
  }))
  for (const data of events) {
    const answer = await page.request.post(`${address}/api/pours/${id}/events`, { data })
    expect(answer.ok(), JSON.stringify(data.body)).toBe(true)
  }
  return { id, outlook: outlookFrom(kept, events) }
}
