import { postedEventSchema } from '../../shared/pourEvents'
import type { HeldByPerson, HeldInput, HeldTaken } from '../../shared/people'
import type { Db } from '../db/client'
import { DomainError } from './domainError'
import { recordEvent } from './pours/pours'

/** What came from somebody who had been put out meanwhile: no record of the workshop's until a keeper takes it. */

/** More of one person's stay on their device. */
const MOST_HELD = 500

/** @param by whom it says it is of; that they were here once is known. @returns the ids of those that are kept. */
export async function holdEvents(
  db: Db,
  by: { personId: string; device: string },
  events: HeldInput['events'],
): Promise<string[]> {
  const { n } = await db
    .selectFrom('held_event')
    .select((e) => e.fn.countAll<number>().as('n'))
    .where('person_id', '=', by.personId)
    .executeTakeFirstOrThrow()
  const kept = events.slice(0, Math.max(0, MOST_HELD - n))
  if (kept.length === 0) return []
  await db
    .insertInto('held_event')
    .values(
      kept.map(({ pourId, event }) => ({
        id: event.id,
        pour_id: pourId,
        person_id: by.personId,
        device: by.device,
        event: JSON.stringify(event),
      })),
    )
    .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
    .execute()
  return kept.map((k) => k.event.id)
}

/** What waits for a keeper, by whose it is. */
export async function listHeld(db: Db): Promise<HeldByPerson[]> {
  const rows = await db
    .selectFrom('held_event as h')
    .innerJoin('person as p', (j) =>
      j.onRef('p.id', '=', 'h.person_id').onRef('p.workshop_id', '=', 'h.workshop_id'),
    )
    .leftJoin('pour_summary as s', (j) =>
      j.onRef('s.pour_id', '=', 'h.pour_id').onRef('s.workshop_id', '=', 'h.workshop_id'),
    )
    .select(['h.id', 'h.pour_id', 'h.person_id', 'h.device', 'h.event', 'p.name', 's.piece'])
    .where('h.refused_at', 'is', null)
    .execute()
  const people = new Map<string, HeldByPerson>()
  for (const row of rows) {
    const { personId, events } =
      people.get(row.person_id) ??
      ({ personId: row.person_id, name: row.name, device: row.device, events: [] } satisfies HeldByPerson)
    events.push({ pourId: row.pour_id, piece: row.piece, event: postedEventSchema.parse(row.event) })
    people.set(row.person_id, { personId, name: row.name, device: row.device, events })
  }
  for (const { events } of people.values()) events.sort((a, b) => a.event.occurredAtMs - b.event.occurredAtMs)
  return [...people.values()].sort((a, b) => (a.name < b.name ? -1 : 1))
}

const heldOf = (db: Db, personId: string) =>
  db
    .selectFrom('held_event')
    .innerJoin('person', (j) =>
      j
        .onRef('person.id', '=', 'held_event.person_id')
        .onRef('person.workshop_id', '=', 'held_event.workshop_id'),
    )
    .select(['held_event.id', 'held_event.pour_id', 'held_event.event', 'person.name'])
    .where('held_event.person_id', '=', personId)
    .where('held_event.refused_at', 'is', null)
    .execute()

/** All of it becomes what they recorded, as it would have been; what cannot is left, with why. */
export async function takeHeld(db: Db, personId: string, nowMs: number): Promise<HeldTaken> {
  const rows = (await heldOf(db, personId)).map((row) => ({
    ...row,
    event: postedEventSchema.parse(row.event),
  }))
  if (rows.length === 0) throw new DomainError('not_found')
  rows.sort((a, b) => a.event.occurredAtMs - b.event.occurredAtMs)
  const left: HeldTaken['left'] = []
  let taken = 0
  for (const { id, pour_id, event, name } of rows)
    try {
      await recordEvent(db, pour_id, event, nowMs, { personId, name })
      taken += 1
    } catch (error) {
      if (!(error instanceof DomainError)) throw error
      left.push({ id, code: error.code })
    }
  return { taken, left }
}

/** None of it becomes anything; sent again it is refused. @throws DomainError not_found where nothing waits. */
export async function refuseHeld(db: Db, personId: string): Promise<void> {
  const refused = await db
    .updateTable('held_event')
    .set({ refused_at: new Date() })
    .where('person_id', '=', personId)
    .where('refused_at', 'is', null)
    .executeTakeFirst()
  if (refused.numUpdatedRows === 0n) throw new DomainError('not_found')
}
