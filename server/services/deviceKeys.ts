import { createHash, randomBytes } from 'node:crypto'
import type { DeviceKeyCard } from '../../shared/devices'
import type { Db, OpenDatabase } from '../db/client'
import { bytesOf, uuidOf } from './codes'
import { DomainError } from './domainError'

/** Keys by which scales, thermometers and buttons of the network are let in: each is one device's. */

const MOST_KEYS = 200
const ID_BYTES = 16
const SECRET_BYTES = 16
const hashOf = (secret: Buffer) => createHash('sha256').update(secret).digest()

export async function listDeviceKeys(db: Db): Promise<DeviceKeyCard[]> {
  const rows = await db
    .selectFrom('device_key')
    .selectAll()
    .where('ended_at', 'is', null)
    .orderBy('created_at')
    .execute()
  return rows.map((r) => ({ id: r.id, name: r.name, device: r.device_id, sinceMs: r.created_at.getTime() }))
}

/**
 * A key for one device more, which is told once: what is kept cannot be turned back into it. Asked for again under the
 * same id, as long as no device has come by it, there is another in its place.
 */
export async function offerDeviceKey(
  db: Db,
  workshopId: string,
  id: string,
  name: string,
): Promise<{ key: string }> {
  const { n } = await db
    .selectFrom('device_key')
    .select((e) => e.fn.countAll<number>().as('n'))
    .where('ended_at', 'is', null)
    .executeTakeFirstOrThrow()
  if (n >= MOST_KEYS) throw new DomainError('too_many_devices')
  const secret = randomBytes(SECRET_BYTES)
  const made = await db
    .insertInto('device_key')
    .values({ id, name, key_hash: hashOf(secret) })
    .onConflict((c) =>
      c
        .columns(['workshop_id', 'id'])
        .doUpdateSet({ name, key_hash: hashOf(secret) })
        .where('device_key.device_id', 'is', null)
        .where('device_key.ended_at', 'is', null),
    )
    .returning('id')
    .executeTakeFirst()
  if (!made) throw new DomainError('in_use')
  return { key: Buffer.concat([bytesOf(workshopId), secret]).toString('base64url') }
}

export async function endDeviceKey(db: Db, id: string): Promise<void> {
  const ended = await db
    .updateTable('device_key')
    .set({ ended_at: new Date() })
    .where('id', '=', id)
    .where('ended_at', 'is', null)
    .executeTakeFirst()
  if (ended.numUpdatedRows === 0n) throw new DomainError('not_found')
}

/** The workshop that a key speaks of, if it is written as one. */
function readKey(key: string): { workshopId: string; secret: Buffer } | undefined {
  const bytes = Buffer.from(key, 'base64url')
  if (bytes.length !== ID_BYTES + SECRET_BYTES) return undefined
  return { workshopId: uuidOf(bytes.subarray(0, ID_BYTES)), secret: bytes.subarray(ID_BYTES) }
}

export type KeyAnswer =
  | { workshopId: string; keyId: string }
  | { refused: 'wrong_key' | 'other_device'; workshopId?: string }

/** Whose a device is by its key; from its first use on the key is this device's alone, and the name this key's. */
export async function useDeviceKey(open: OpenDatabase, key: string, device: string): Promise<KeyAnswer> {
  const read = readKey(key)
  if (!read) return { refused: 'wrong_key' }
  const { workshopId, secret } = read
  const db = open.workshop(workshopId)
  const known = await db
    .selectFrom('device_key')
    .select(['id', 'device_id'])
    .where('key_hash', '=', hashOf(secret))
    .where('ended_at', 'is', null)
    .executeTakeFirst()
  if (!known) return { refused: 'wrong_key', workshopId }
  if (known.device_id !== null)
    return known.device_id === device
      ? { workshopId, keyId: known.id }
      : { refused: 'other_device', workshopId }
  try {
    const taken = await db
      .updateTable('device_key')
      .set({ device_id: device })
      .where('id', '=', known.id)
      .where('device_id', 'is', null)
      .where('ended_at', 'is', null)
      .executeTakeFirst()
    // Another was first; it says so when it comes again.
    if (taken.numUpdatedRows === 0n) return { refused: 'other_device', workshopId }
  } catch (error) {
    if ((error as { constraint?: unknown } | null)?.constraint !== 'device_key_by_device') throw error
    return { refused: 'other_device', workshopId }
  }
  return { workshopId, keyId: known.id }
}
