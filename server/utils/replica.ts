import { openDatabase, type Db, type OpenDatabase } from '../db/client'
import { useConfig } from '../config'
import { DomainError } from '../services/domainError'
import { Follower } from '../services/follower'
import { useDatabase, type Workshop } from './database'
import { useLogger } from './logger'

/** A second database that follows the first: what only looks back is read from it, as long as it keeps up. */

const LOOK_EVERY_MS = 1000
/** Further behind, and somebody would miss what they have just done. */
const MOST_LAG_MS = 2000
/** Nothing waits for it: there is the first. */
const CONNECT_MS = 1000

let replica: { open: OpenDatabase; follower: Follower } | undefined
let looking: NodeJS.Timeout | undefined

export function openReplica(): void {
  const { replicaUrl } = useConfig()
  if (replicaUrl === undefined) return
  const open = openDatabase(replicaUrl, () => {}, { statementTimeoutMs: 5000, connectMs: CONNECT_MS })
  const follower = new Follower(useDatabase().unscoped, open.unscoped, () => Date.now())
  replica = { open, follower }
  const look = () =>
    void follower.look().finally(() => {
      if (replica) looking = setTimeout(look, LOOK_EVERY_MS)
    })
  look()
}

export async function closeReplica(): Promise<void> {
  clearTimeout(looking)
  const open = replica?.open
  replica = undefined
  await open?.close()
}

/** null: there is none; `lagMs` null: it cannot be reached. */
export const replicaState = (): { lagMs: number | null } | null =>
  replica ? { lagMs: replica.follower.lagMs ?? null } : null

/** Reads where it costs the bench nothing; from the first database where the second is away, behind, or fails. */
export async function lookBack<T>({ id, db }: Workshop, read: (db: Db) => Promise<T>): Promise<T> {
  const lagMs = replica?.follower.lagMs
  if (!replica || lagMs === undefined || lagMs > MOST_LAG_MS) return read(db)
  try {
    return await read(replica.open.workshop(id))
  } catch (error) {
    if (error instanceof DomainError) throw error
    replica?.follower.lost()
    useLogger().warn({ err: error }, 'the second database did not answer; the first is asked')
    return read(db)
  }
}
