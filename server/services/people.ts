import { createHash, randomBytes, randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { handOfName } from '../../core/pour'
import type { Pairing, PairingFor, PersonCard, PersonInput } from '../../shared/people'
import type { Role } from '../../shared/roles'
import type { Db, OpenDatabase } from '../db/client'
import { bytesOf, uuidOf } from './codes'
import { DomainError } from './domainError'

/** People of a workshop and the devices that they are let in on. */

/** More than these are no workshop's. */
const MOST_PEOPLE = 500
/** Long enough to fetch the phone; or to read what was sent. */
const HOLDS_MIN: Record<PairingFor, number> = { device: 5, invitation: 3 * 24 * 60 }
/** How exactly a device is known to have been seen. */
const SEEN_EVERY_MIN = 1
/** What was recorded on it may come until then (`held.ts`). */
const ENDED_KEPT_DAYS = 90
/** As long as a browser keeps its cookie. */
const UNSEEN_KEPT_DAYS = 400

async function cardsOf(db: Db, ids?: readonly string[]): Promise<PersonCard[]> {
  const people = await db
    .selectFrom('person')
    .select(['id', 'name', 'role'])
    .where('gone_at', 'is', null)
    .$if(ids !== undefined, (q) => q.where('id', 'in', ids!))
    .orderBy((e) => e.fn('lower', ['name']))
    .execute()
  if (people.length === 0) return []
  const sessions = await db
    .selectFrom('session')
    .selectAll()
    .where(
      'person_id',
      'in',
      people.map((p) => p.id),
    )
    .where('ended_at', 'is', null)
    .orderBy('seen_at', 'desc')
    .execute()
  const names = await db
    .selectFrom('person_name')
    .select(['person_id', 'name'])
    .where(
      'person_id',
      'in',
      people.map((p) => p.id),
    )
    .orderBy('hand')
    .execute()
  return people.map((person) => ({
    ...person,
    names: names.filter((n) => n.person_id === person.id).map((n) => n.name),
    devices: sessions
      .filter((s) => s.person_id === person.id)
      .map((s) => ({
        id: s.id,
        name: s.device,
        sinceMs: s.created_at.getTime(),
        seenMs: s.seen_at.getTime(),
        seenFrom: s.seen_from,
      })),
  }))
}

export const listPeople = (db: Db): Promise<PersonCard[]> => cardsOf(db)
export const peopleById = (db: Db, ids: readonly string[]): Promise<PersonCard[]> => cardsOf(db, ids)

async function personOf(db: Db, id: string): Promise<PersonCard> {
  const [card] = await cardsOf(db, [id])
  if (!card) throw new DomainError('not_found')
  return card
}

/** Two of one name could not be told apart beside what they record. */
const nameTaken = () => new DomainError('name_taken', [{ path: 'name', message: 'is somebody else’s here' }])
const isTaken = (error: unknown) =>
  (error as { constraint?: unknown } | null)?.constraint === 'person_by_name'

/** Sent again it is the same one. */
export async function addPerson(db: Db, id: string, { name, role }: PersonInput): Promise<PersonCard> {
  const { n } = await db
    .selectFrom('person')
    .select((e) => e.fn.countAll<number>().as('n'))
    .where('gone_at', 'is', null)
    .executeTakeFirstOrThrow()
  if (n >= MOST_PEOPLE) throw new DomainError('too_many_people')
  try {
    await db
      .insertInto('person')
      .values({ id, name, role })
      .onConflict((c) => c.columns(['workshop_id', 'id']).doNothing())
      .execute()
  } catch (error) {
    throw isTaken(error) ? nameTaken() : error
  }
  return personOf(db, id)
}

/** Where nobody sits at the machine somebody has to keep it. @throws `last_keeper` where nobody would. */
async function requireKeeper(trx: Db): Promise<void> {
  const keepers = await trx
    .selectFrom('person')
    .select('id')
    .where('role', '=', 'keeper')
    .where('gone_at', 'is', null)
    .forUpdate()
    .execute()
  if (keepers.length === 0) throw new DomainError('last_keeper')
}

/** @param wantsKeeper whether somebody has to be left who keeps the workshop. */
export async function changePerson(
  db: Db,
  id: string,
  { name, role }: PersonInput,
  wantsKeeper = false,
): Promise<PersonCard> {
  try {
    await db.transaction().execute(async (trx) => {
      await trx
        .updateTable('person')
        .set({ name, role })
        .where('id', '=', id)
        .where('gone_at', 'is', null)
        .execute()
      if (wantsKeeper) await requireKeeper(trx)
    })
  } catch (error) {
    throw isTaken(error) ? nameTaken() : error
  }
  return personOf(db, id)
}

/**
 * Names that their pours stood under before they were let in: what was learnt of those hands is learnt of theirs. What was
 * recorded keeps the name it has.
 */
export async function giveNames(db: Db, id: string, names: readonly string[]): Promise<PersonCard> {
  const byHand = new Map(names.map((name) => [handOfName(name), name.trim()]))
  const hands = [...byHand.keys()]
  await db.transaction().execute(async (trx) => {
    const known = await trx
      .selectFrom('person')
      .select('id')
      .where('id', '=', id)
      .where('gone_at', 'is', null)
      .forUpdate()
      .executeTakeFirst()
    if (!known) throw new DomainError('not_found')
    await trx
      .deleteFrom('person_name')
      .where('person_id', '=', id)
      .where(sql<boolean>`hand <> all (${hands}::text[])`)
      .execute()
    if (hands.length === 0) return
    await trx
      .insertInto('person_name')
      .values(hands.map((hand) => ({ hand, name: byHand.get(hand)!, person_id: id })))
      .onConflict((c) => c.columns(['workshop_id', 'hand']).doNothing())
      .execute()
    const others = await trx
      .selectFrom('person_name')
      .select('name')
      .where('hand', 'in', hands)
      .where('person_id', '<>', id)
      .execute()
    if (others.length > 0)
      throw new DomainError('name_taken', [{ path: 'names', message: 'is given to somebody else' }])
  })
  return personOf(db, id)
}

/** Hands that something was learnt of under a name that is nobody's yet. */
export async function looseNames(db: Db): Promise<string[]> {
  // From one hand to the next by the index, however many pours each has.
  const { rows } = await sql<{ hand: string }>`
    with recursive taught as (
      (select subject from observation where subject >= 'person:' and subject < 'person;' order by subject limit 1)
      union all
      select (select o.subject from observation o
        where o.subject > taught.subject and o.subject < 'person;' order by o.subject limit 1)
      from taught where taught.subject is not null
    )
    select substr(subject, 8) as hand from taught
    where subject is not null and substr(subject, 8) not in (select hand from person_name)
      and substr(subject, 8) not in (select id::text from person) limit 100`.execute(db)
  return rows.map((r) => r.hand)
}

/** Put out: none of their devices is let in any more. What they recorded stays theirs. @param wantsKeeper as above. */
export async function putOut(db: Db, id: string, wantsKeeper = false): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const gone = await trx
      .updateTable('person')
      .set({ gone_at: new Date() })
      .where('id', '=', id)
      .where('gone_at', 'is', null)
      .executeTakeFirst()
    if (gone.numUpdatedRows === 0n) throw new DomainError('not_found')
    if (wantsKeeper) await requireKeeper(trx)
    await trx.deleteFrom('pairing').where('person_id', '=', id).execute()
    await trx
      .updateTable('session')
      .set({ ended_at: new Date() })
      .where('person_id', '=', id)
      .where('ended_at', 'is', null)
      .execute()
  })
}

/** One's own devices: one of them, or all but the one that one is on. */
export async function endSessionsOf(
  db: Db,
  personId: string,
  which: { only: string } | { but: string },
): Promise<void> {
  await db
    .updateTable('session')
    .set({ ended_at: new Date() })
    .where('person_id', '=', personId)
    .where('ended_at', 'is', null)
    .where('id', 'only' in which ? '=' : '<>', 'only' in which ? which.only : which.but)
    .execute()
}

export async function endSession(db: Db, id: string): Promise<void> {
  const ended = await db
    .updateTable('session')
    .set({ ended_at: new Date() })
    .where('id', '=', id)
    .where('ended_at', 'is', null)
    .executeTakeFirst()
  if (ended.numUpdatedRows === 0n) throw new DomainError('not_found')
}

const UUID_BYTES = 16
const SECRET_BYTES = 16
const hashOf = (secret: Buffer) => createHash('sha256').update(secret).digest()

/**
 * A code for one more device of this person, good for so long by the database's clock. What is kept of it cannot be turned
 * back into it. Another one takes its place.
 */
export async function offerPairing(
  db: Db,
  workshopId: string,
  personId: string,
  purpose: PairingFor = 'device',
): Promise<Pairing> {
  await personOf(db, personId)
  const secret = randomBytes(SECRET_BYTES)
  const { expires_at } = await db
    .insertInto('pairing')
    .values({
      person_id: personId,
      secret_hash: hashOf(secret),
      expires_at: sql<Date>`now() + make_interval(mins => ${HOLDS_MIN[purpose]})`,
    })
    .onConflict((c) =>
      c.columns(['workshop_id', 'person_id']).doUpdateSet((e) => ({
        secret_hash: e.ref('excluded.secret_hash'),
        expires_at: e.ref('excluded.expires_at'),
      })),
    )
    .returning('expires_at')
    .executeTakeFirstOrThrow()
  const token = Buffer.concat([bytesOf(workshopId), bytesOf(personId), secret]).toString('base64url')
  return { token, expiresAtMs: expires_at.getTime() }
}

export interface Session {
  id: string
  workshopId: string
  personId: string
  name: string
  role: Role
  device: string
  /** What they sign in by, if they do. */
  accountId: string | null
}

/** A device that this person is let in on from now on. */
export async function beginSessionOf(
  open: OpenDatabase,
  workshopId: string,
  personId: string,
  device: string,
): Promise<Session> {
  const db = open.workshop(workshopId)
  const id = randomUUID()
  await db.insertInto('session').values({ id, person_id: personId, device }).execute()
  const session = await findSession(db, workshopId, id)
  if (!session) throw new DomainError('sign_in')
  return session
}

/**
 * Lets a device in by its code, which is spent with that. Whatever is wrong with a code, the answer is the same.
 * @param by who was on it before: whoever has a password keeps it in each workshop that they are let into.
 */
export async function takePairing(
  open: OpenDatabase,
  token: string,
  device: string,
  by?: Session,
): Promise<Session> {
  const bytes = Buffer.from(token, 'base64url')
  if (bytes.length !== 2 * UUID_BYTES + SECRET_BYTES) throw new DomainError('code_spent')
  const workshopId = uuidOf(bytes.subarray(0, UUID_BYTES))
  const personId = uuidOf(bytes.subarray(UUID_BYTES, 2 * UUID_BYTES))
  const db = open.workshop(workshopId)
  const spent = await db
    .deleteFrom('pairing')
    .where('person_id', '=', personId)
    .where('secret_hash', '=', hashOf(bytes.subarray(2 * UUID_BYTES)))
    .where('expires_at', '>', sql<Date>`now()`)
    .executeTakeFirst()
  if (spent.numDeletedRows === 0n) throw new DomainError('code_spent')
  if (by?.accountId && by.workshopId !== workshopId)
    await db
      .updateTable('person')
      .set({ account_id: by.accountId })
      .where('id', '=', personId)
      .where('account_id', 'is', null)
      .execute()
  return beginSessionOf(open, workshopId, personId, device)
}

/** What was put out long ago, and what no browser holds a cookie of any more. */
export async function pruneSessions(db: Db): Promise<void> {
  await db
    .deleteFrom('session')
    .where((e) =>
      e.or([
        e('ended_at', '<', sql<Date>`now() - make_interval(days => ${ENDED_KEPT_DAYS})`),
        e('seen_at', '<', sql<Date>`now() - make_interval(days => ${UNSEEN_KEPT_DAYS})`),
      ]),
    )
    .execute()
}

/** Who was on a device that is not let in any more. */
export async function findEndedSession(
  db: Db,
  id: string,
): Promise<{ personId: string; device: string } | undefined> {
  const row = await db
    .selectFrom('session')
    .innerJoin('person', (j) =>
      j.onRef('person.id', '=', 'session.person_id').onRef('person.workshop_id', '=', 'session.workshop_id'),
    )
    .select(['session.person_id', 'session.device'])
    .where('session.id', '=', id)
    .where((e) => e.or([e('session.ended_at', 'is not', null), e('person.gone_at', 'is not', null)]))
    .executeTakeFirst()
  return row && { personId: row.person_id, device: row.device }
}

/** Who is on this device, which asks `from` there; undefined where it was put out. */
export async function findSession(
  db: Db,
  workshopId: string,
  id: string,
  from?: string,
): Promise<Session | undefined> {
  const row = await db
    .selectFrom('session')
    .innerJoin('person', (j) =>
      j.onRef('person.id', '=', 'session.person_id').onRef('person.workshop_id', '=', 'session.workshop_id'),
    )
    .select(['session.device', 'session.person_id', 'person.name', 'person.role', 'person.account_id'])
    .select(
      sql<boolean>`session.seen_at < now() - make_interval(mins => ${SEEN_EVERY_MIN})
        or session.seen_from is distinct from coalesce(${from ?? null}, session.seen_from)`.as('isNews'),
    )
    .where('session.id', '=', id)
    .where('session.ended_at', 'is', null)
    .where('person.gone_at', 'is', null)
    .executeTakeFirst()
  if (!row) return undefined
  if (row.isNews)
    // A disk that is full keeps nobody out.
    await db
      .updateTable('session')
      .set({ seen_at: new Date(), ...(from === undefined ? {} : { seen_from: from.slice(0, 60) }) })
      .where('id', '=', id)
      .execute()
      .catch(() => {})
  const { device, person_id: personId, name, role, account_id: accountId } = row
  return { id, workshopId, personId, name, role, device, accountId }
}
