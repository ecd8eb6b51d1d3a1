import { randomUUID } from 'node:crypto'
import { sql, type Transaction } from 'kysely'
import { openDatabase, type Db, type OpenDatabase } from '../../server/db/client'
import type { Database } from '../../server/db/schema'
import { loadDemo } from '../../server/demo'
import { createTestDatabase } from './database'
import { startServer } from './server'

/** Where the one server is that all workers go to, each test in a workshop of its own. */
interface Shared {
  address: string
  url: string
  ownerUrl: string
}

/** For the browser's tests, before any of them: one server for all. */
export default async function startShared(): Promise<() => Promise<void>> {
  const database = await createTestDatabase()
  const server = await startServer(database.url)
  process.env.NINE_RIPPLES_TEST_SHARED = JSON.stringify({
    address: server.address,
    url: database.url,
    ownerUrl: database.ownerUrl,
  } satisfies Shared)
  return async () => {
    await server.stop()
    await database.drop()
  }
}

let shared: { address: string; open: OpenDatabase; owner: OpenDatabase } | undefined
function useShared() {
  if (shared) return shared
  const where = JSON.parse(process.env.NINE_RIPPLES_TEST_SHARED!) as Shared
  const connect = (url: string) => openDatabase(url, () => {}, { poolSize: 3 })
  shared = { address: where.address, open: connect(where.url), owner: connect(where.ownerUrl) }
  return shared
}

export interface SharedWorkshop {
  address: string
  workshopId: string
  /** As the application: row security holds it to the workshop. */
  db: Db
  /** As the owner, whom no row security holds. */
  owner: Db
}

/** A workshop of its own, empty or a copy of the demo's. */
export async function makeSharedWorkshop({ demo }: { demo: boolean }): Promise<SharedWorkshop> {
  const { address, open, owner } = useShared()
  const workshopId = randomUUID()
  const db = open.workshop(workshopId)
  if (demo) await copyOf(owner, await freshDemo(open), workshopId)
  else await sql`select make_workshop(false)`.execute(db)
  return { address, workshopId, db, owner: owner.unscoped }
}

export async function closeShared(): Promise<void> {
  await shared?.open.close()
  await shared?.owner.close()
}

/** What the demo holds is told from the present: a copy is at the most this old. */
const DEMO_FRESH_MS = 120_000

/** A demo that others begin as copies of, loaded by whoever needs it first; several processes may want it at once. */
async function freshDemo(open: OpenDatabase): Promise<string> {
  const nowMs = Date.now()
  const id = `00000000-0000-4000-8000-${Math.floor(nowMs / DEMO_FRESH_MS)
    .toString(16)
    .padStart(12, '0')}`
  const db = open.workshop(id)
  await open.unscoped.connection().execute(async (one) => {
    await sql`select pg_advisory_lock(1)`.execute(one)
    try {
      if (await db.selectFrom('pour').select('id').limit(1).executeTakeFirst()) return
      await sql`select make_workshop(false)`.execute(db)
      await loadDemo(db, nowMs)
    } finally {
      await sql`select pg_advisory_unlock(1)`.execute(one)
    }
  })
  return id
}

/** Every row that is a workshop's own, by the columns that hold it. */
async function copyOf(owner: OpenDatabase, from: string, to: string): Promise<void> {
  const rowsOf = async (trx: Transaction<Database>) =>
    (
      await sql<{ table: string; columns: string[] }>`
        select table_name as table, array_agg(column_name::text) as columns from information_schema.columns
        where table_schema = 'public' and column_name <> 'workshop_id' and is_generated = 'NEVER'
          and table_name in (select table_name from information_schema.columns where column_name = 'workshop_id')
          and table_name <> 'change'
        group by 1`.execute(trx)
    ).rows
  await owner.unscoped.transaction().execute(async (trx) => {
    // Copied as they are: nothing is told, summed up or looked for again.
    await sql`set local session_replication_role = replica`.execute(trx)
    await sql`insert into workshop (id) values (${to})`.execute(trx)
    for (const { table, columns } of await rowsOf(trx)) {
      const list = sql.join(columns.map((c) => sql.ref(c)))
      await sql`insert into ${sql.table(table)} (workshop_id, ${list})
        select ${to}::uuid, ${list} from ${sql.table(table)} where workshop_id = ${from}`.execute(trx)
    }
  })
}
