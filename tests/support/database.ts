import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { appUrlOf, narrow } from '../../server/db/appRole'
import { openDatabase, type Db } from '../../server/db/client'
import { migrate } from '../../server/db/migrate'

const adminUrl = process.env.NINE_RIPPLES_TEST_DATABASE_URL
const appPassword = process.env.NINE_RIPPLES_TEST_APP_PASSWORD

export interface TestDatabase {
  /** As the application enters it. */
  url: string
  ownerUrl: string
  /** As the owner, whom no row security holds. */
  owner: Db
  /** The workshop, as the owner; before migrations have made one, no workshop's. */
  db: Db
  workshopId: string
  /** Runs the rest of the migrations. */
  finish: () => Promise<TestDatabase>
  drop: () => Promise<void>
}

/** Migrated to the end, once for the cluster: every other database begins as a copy of it. */
const TEMPLATE = 'migrated'

/** Makes the template where nobody has yet; several processes may want it at once. */
async function madeTemplate(admin: ReturnType<typeof openDatabase>): Promise<void> {
  await admin.unscoped.connection().execute(async (one) => {
    await sql`select pg_advisory_lock(1)`.execute(one)
    try {
      const { rows } = await sql`select from pg_database where datname = ${TEMPLATE}`.execute(one)
      if (rows.length > 0) return
      // Under another name until it is whole.
      const raw = `${TEMPLATE}_${randomUUID().replaceAll('-', '')}`
      await sql`create database ${sql.id(raw)}`.execute(one)
      const url = new URL(adminUrl!)
      url.pathname = `/${raw}`
      const own = openDatabase(url.href, () => {}, { poolSize: 1 })
      await migrate(own.unscoped)
      await own.close()
      await sql`alter database ${sql.id(raw)} rename to ${sql.id(TEMPLATE)}`.execute(one)
    } finally {
      await sql`select pg_advisory_unlock(1)`.execute(one)
    }
  })
}

/** A database of its own on the throw-away cluster that bin/test started; with `upTo`, migrated no further than that. */
export async function createTestDatabase({ upTo }: { upTo?: string } = {}): Promise<TestDatabase> {
  if (!adminUrl || !appPassword) throw new Error('NINE_RIPPLES_TEST_DATABASE_URL is not set: run ./bin/test')
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const admin = openDatabase(adminUrl, () => {}, { poolSize: 1 })
  if (upTo === undefined) await madeTemplate(admin)
  const from = upTo === undefined ? sql`template ${sql.id(TEMPLATE)}` : sql``
  await sql`create database ${sql.id(name)} ${from}`.execute(admin.unscoped)
  const ownerUrl = new URL(adminUrl)
  ownerUrl.pathname = `/${name}`
  const own = openDatabase(ownerUrl.href, () => {})
  if (upTo !== undefined) await migrate(own.unscoped, upTo)
  await narrow(own.unscoped)
  const workshop = async () => {
    const workshopId = await own.soleWorkshop()
    return { workshopId, db: own.workshop(workshopId) }
  }
  const database: TestDatabase = {
    url: appUrlOf(ownerUrl.href, appPassword),
    ownerUrl: ownerUrl.href,
    owner: own.unscoped,
    ...(upTo === undefined ? await workshop() : { workshopId: '', db: own.unscoped }),
    finish: async () => {
      await migrate(own.unscoped)
      return { ...database, ...(await workshop()) }
    },
    drop: async () => {
      await own.close()
      await sql`drop database if exists ${sql.id(name)} with (force)`.execute(admin.unscoped)
      await admin.close()
    },
  }
  return database
}
