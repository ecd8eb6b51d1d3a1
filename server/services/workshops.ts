import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { MS_PER } from '../../core/units'
import type { WorkshopHere } from '../../shared/workshops'
import type { Db, OpenDatabase } from '../db/client'

/** Workshops of one server. What is asked of one of them goes by its own connection. */

/** Clocks of a demo run from when it was loaded: one that is older has run out. */
const DEMO_FRESH_MS = 12 * MS_PER.h

/** In the order they were made. */
export async function listWorkshops(open: OpenDatabase): Promise<WorkshopHere[]> {
  const home = await open.homeWorkshop()
  const { rows } = await sql<{
    id: string
    name: string
    is_demo: boolean
  }>`select * from workshops_here()`.execute(open.unscoped)
  return rows.map((r) => ({ id: r.id, name: r.name, isDemo: r.is_demo, isHome: r.id === home }))
}

/** By its own connection: what changes in it is its own to tell. */
const make = (open: OpenDatabase, id: string, isDemo: boolean) =>
  sql`select make_workshop(${isDemo})`.execute(open.workshop(id))

/** An empty one; again with the same id, the one that is there. */
export async function makeWorkshop(open: OpenDatabase, id: string): Promise<void> {
  await make(open, id, false)
}

/** Whether there is a workshop of the connection's name. */
export async function isHere(db: Db): Promise<boolean> {
  const { rows } = await sql`select from workshop where id = current_workshop()`.execute(db)
  return rows.length > 0
}

let loading: Promise<string> | undefined

/** The one for looking round in, loaded afresh where it is old; its id. */
export function openDemo(open: OpenDatabase, nowMs: number): Promise<string> {
  loading ??= load(open, nowMs).finally(() => (loading = undefined))
  return loading
}

async function load(open: OpenDatabase, nowMs: number): Promise<string> {
  const known = (await listWorkshops(open)).find((w) => w.isDemo)
  const id = known?.id ?? randomUUID()
  if (!known) await make(open, id, true)
  const db = open.workshop(id)
  const newest = await db
    .selectFrom('pour')
    .select((eb) => eb.fn.max('created_at').as('at'))
    .executeTakeFirst()
  if (newest?.at && nowMs - new Date(newest.at).getTime() < DEMO_FRESH_MS) return id
  // Read in when somebody wants it: nobody else's start waits for it.
  const { clearWorkshop, loadDemo } = await import('../demo')
  await clearWorkshop(db)
  await loadDemo(db, nowMs)
  return id
}
