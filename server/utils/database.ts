import type { H3Event } from 'h3'
import { z } from 'zod'
import { useConfig } from '../config'
import { HOME, WINDOW_HEADER, placeOf, workshopCookie } from '../../shared/place'
import { openDatabase, type Db, type OpenDatabase } from '../db/client'
import { DomainError } from '../services/domainError'
import { isHere } from '../services/workshops'
import { useLogger } from './logger'

/** Nothing that a request asks takes this long; what does is ended, and the request may come again. */
const STATEMENT_TIMEOUT_MS = 15_000
const LOCK_TIMEOUT_MS = 5_000

let database: OpenDatabase | undefined
let home: Promise<string> | undefined
/** Those that are known to be here; none ever goes. */
const here = new Set<string>()

/** For what concerns no workshop of its own: which there are. */
export function useDatabase(): OpenDatabase {
  database ??= openDatabase(
    useConfig().databaseUrl,
    (error) => useLogger().warn({ err: error }, 'a database connection was lost'),
    { statementTimeoutMs: STATEMENT_TIMEOUT_MS, lockTimeoutMs: LOCK_TIMEOUT_MS },
  )
  return database
}

/** A request's own workshop: what its database may see, and which it is. */
export interface Workshop {
  id: string
  db: Db
}

/**
 * The only way from a route to the database: on a device of the network the workshop that its person was let into, at the
 * machine itself the one that this browser has gone into, at first the one at home. A window that was opened in another
 * one, or by somebody else, is told so, before anything of it lands here.
 */
export async function useWorkshop(event: H3Event): Promise<Workshop> {
  const { asker } = event.context
  if (!asker) throw new Error('nobody was let through here')
  // A stream carries no header of its own.
  const window = getRequestHeader(event, WINDOW_HEADER) ?? getQuery(event).window
  if (asker.at === 'network') {
    const { workshopId: id, personId } = asker
    if (window !== undefined && window !== placeOf(id, personId)) throw new DomainError('elsewhere')
    return { id, db: useDatabase().workshop(id) }
  }
  const [, port = ''] = /:(\d+)$/.exec(getRequestHeader(event, 'host') ?? '') ?? []
  const chosen = getCookie(event, workshopCookie(port))
  if (window !== undefined && window !== (chosen ?? HOME)) throw new DomainError('elsewhere')
  if (chosen === undefined) return homeWorkshop()
  const open = useDatabase()
  const isKnown = here.has(chosen)
  if (!isKnown && !z.uuid().safeParse(chosen).success) throw new DomainError('no_workshop')
  const db = open.workshop(chosen)
  if (!isKnown && !(await isHere(db))) throw new DomainError('no_workshop')
  here.add(chosen)
  return { id: chosen, db }
}

/** The one that this machine opens at first touch; for devices, too, which choose none. */
export async function homeWorkshop(): Promise<Workshop> {
  const open = useDatabase()
  home ??= open.homeWorkshop()
  try {
    const id = await home
    return { id, db: open.workshop(id) }
  } catch (error) {
    home = undefined
    throw error
  }
}

/** A workshop's database for work that no request asks for. */
export const databaseOf = (workshopId: string): Db => useDatabase().workshop(workshopId)

export async function closeDatabase(): Promise<void> {
  await database?.close()
  database = undefined
  home = undefined
}
