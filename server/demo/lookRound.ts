import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { MS_PER } from '../../core/units'
import type { OpenDatabase } from '../db/client'
import { listWorkshops, makeWorkshop } from '../services/workshops'

/** Clocks of a demo run from when it was loaded: one that is older has run out. */
const FRESH_MS = 12 * MS_PER.h

async function demoId(open: OpenDatabase): Promise<string> {
  const known = async () => (await listWorkshops(open)).find((w) => w.isDemo)?.id
  const id = await known()
  if (id) return id
  // Whoever else makes one just now: the database keeps one of them.
  await makeWorkshop(open, randomUUID(), true)
  return (await known())!
}

/** The workshop for looking round in, loaded afresh where it is old; its id. One at a time, whichever process is asked. */
export async function openDemo(open: OpenDatabase, nowMs: number): Promise<string> {
  const id = await demoId(open)
  // Read in when somebody wants it: nobody else's start waits for it.
  const { clearWorkshop, loadDemo } = await import('.')
  await open
    .workshop(id)
    .transaction()
    .execute(async (trx) => {
      // Who else has asked waits until it is there, however slow the machine is just now.
      await sql`set local lock_timeout = '60s'`.execute(trx)
      await sql`set local statement_timeout = '60s'`.execute(trx)
      await sql`select pg_advisory_xact_lock(hashtext('demo'))`.execute(trx)
      const newest = await trx
        .selectFrom('pour')
        .select((eb) => eb.fn.max('created_at').as('at'))
        .executeTakeFirst()
      if (newest?.at && nowMs - new Date(newest.at).getTime() < FRESH_MS) return
      await clearWorkshop(trx)
      await loadDemo(trx, nowMs)
    })
  return id
}
