import { sql } from 'kysely'
import type { WorkshopHere } from '../../shared/workshops'
import type { Db, OpenDatabase } from '../db/client'

/** Workshops of one server. What is asked of one of them goes by its own connection. */

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

/** An empty one; nothing, where there is one of that id, or a demo already. By its own connection: what changes in it is its own to tell. */
export async function makeWorkshop(open: OpenDatabase, id: string, isDemo = false): Promise<void> {
  await sql`select make_workshop(${isDemo})`.execute(open.workshop(id))
}

/** Whether there is a workshop of the connection's name. */
export async function isHere(db: Db): Promise<boolean> {
  const { rows } = await sql`select from workshop where id = current_workshop()`.execute(db)
  return rows.length > 0
}
