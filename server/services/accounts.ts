import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import { dictionary } from '@zxcvbn-ts/language-common'
import { sql } from 'kysely'
import pLimit from 'p-limit'
import type { MyPlace } from '../../shared/people'
import { LEAST_PASSWORD, type Role } from '../../shared/roles'
import type { Db, OpenDatabase } from '../db/client'
import { DomainError } from './domainError'
import { beginSessionOf, type Session } from './people'

/** A name and a password, one for all workshops that somebody belongs to. */

const scrypt = new Scrypt({})
/** Each takes a core for a moment: however many ask, the bench goes on. */
const oneByOne = pLimit(1)
const hashOf = (password: string) => oneByOne(() => scrypt.make(password))
const verifies = (hash: string, password: string) => oneByOne(() => scrypt.verify(hash, password))

let common: ReadonlySet<string> | undefined
/** Long enough, and none of those that are tried first. @throws `invalid_input` at the field. */
function checkPassword(password: string, name: string): void {
  common ??= new Set(dictionary['passwords-common'])
  const plain = password.toLowerCase()
  const message =
    password.length < LEAST_PASSWORD
      ? `has ${LEAST_PASSWORD} characters at the least`
      : common.has(plain) || new Set(plain).size < 4 || plain.includes(name.toLowerCase())
        ? 'is one of those that are tried first'
        : undefined
  if (message) throw new DomainError('invalid_input', [{ path: 'password', message }])
}

interface AccountRow {
  id: string
  name: string
  password_hash: string
}

async function accountOf(db: Db, personId: string): Promise<AccountRow | undefined> {
  const { rows } = await sql<AccountRow>`select * from account_of(${personId})`.execute(db)
  return rows[0]
}

/** The name somebody signs in by; undefined where they have none. */
export const accountNameOf = async (db: Db, personId: string): Promise<string | undefined> =>
  (await accountOf(db, personId))?.name

/**
 * Gives somebody a password, or another one: for that they say the one before.
 * @throws `wrong_password`, `name_taken`, or `invalid_input` at the field.
 */
export async function putPassword(
  db: Db,
  personId: string,
  { name, password, before }: { name: string; password: string; before?: string },
): Promise<void> {
  checkPassword(password, name)
  const account = await accountOf(db, personId)
  if (account && !(await verifies(account.password_hash, before ?? '')))
    throw new DomainError('wrong_password', [{ path: 'before', message: 'is not the one you have' }])
  const hash = await hashOf(password)
  try {
    await sql`select put_account(${personId}, ${name}, ${hash})`.execute(db)
  } catch (error) {
    if ((error as { constraint?: unknown }).constraint !== 'account_by_name') throw error
    throw new DomainError('name_taken', [{ path: 'name', message: 'is taken on this server' }])
  }
}

interface PlaceRow {
  workshop_id: string
  workshop_name: string
  person_id: string
  role: Role
}
async function placesOf(open: OpenDatabase, accountId: string): Promise<PlaceRow[]> {
  const { rows } = await sql<PlaceRow>`select * from places_of_account(${accountId})`.execute(open.unscoped)
  return rows
}

/** Workshops that whoever has this account belongs to. */
export async function myPlaces(open: OpenDatabase, db: Db, personId: string): Promise<MyPlace[]> {
  const account = await accountOf(db, personId)
  const places = account ? await placesOf(open, account.id) : []
  return places.map((p) => ({ workshopId: p.workshop_id, name: p.workshop_name, role: p.role }))
}

/** What nobody's password is checked against, so that a name that is not here takes as long as one that is. */
let nobody: Promise<string> | undefined

/** Lets a device in by name and password. @throws `wrong_password`, whichever of the two it is. */
export async function signIn(
  open: OpenDatabase,
  { name, password, device }: { name: string; password: string; device: string },
): Promise<Session> {
  const { rows } = await sql<AccountRow>`select * from account_named(${name})`.execute(open.unscoped)
  const [account] = rows
  const hash = account?.password_hash ?? (await (nobody ??= hashOf('nobody has this one')))
  const isRight = await verifies(hash, password)
  const [place] = account && isRight ? await placesOf(open, account.id) : []
  if (!place) throw new DomainError('wrong_password')
  return beginSessionOf(open, place.workshop_id, place.person_id, device)
}

/** The same device in another workshop of the same account. */
export async function enterPlace(open: OpenDatabase, from: Session, workshopId: string): Promise<Session> {
  const account = await accountOf(open.workshop(from.workshopId), from.personId)
  const place = account && (await placesOf(open, account.id)).find((p) => p.workshop_id === workshopId)
  if (!place) throw new DomainError('no_workshop')
  return beginSessionOf(open, place.workshop_id, place.person_id, from.device)
}
