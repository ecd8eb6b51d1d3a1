import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { appUrlOf, narrow } from '../../server/db/appRole'
import { openDatabase, type Db } from '../../server/db/client'
import { migrate } from '../../server/db/migrate'
import { loadDemo } from '../../server/demo'

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

type Database = ReturnType<typeof openDatabase>

/** A database that others begin as copies of, made once for the cluster. */
interface Template {
  name: string
  /** What it is a copy of itself. */
  from?: Template
  fill: (own: Database) => Promise<unknown>
}

const MIGRATED: Template = { name: 'migrated', fill: (own) => migrate(own.unscoped) }

/** What the demo holds is told from the present: a copy is at the most this old. */
const DEMO_FRESH_MS = 120_000
const demoOf = (nowMs: number): Template => ({
  name: `demo_${Math.floor(nowMs / DEMO_FRESH_MS)}`,
  from: MIGRATED,
  fill: async (own) => loadDemo(own.workshop(await own.homeWorkshop()), Date.now()),
})

/** Makes a template where nobody has yet; several processes may want it at once. */
async function made(admin: Database, { name, from, fill }: Template): Promise<void> {
  if (from) await made(admin, from)
  await admin.unscoped.connection().execute(async (one) => {
    await sql`select pg_advisory_lock(1)`.execute(one)
    try {
      const { rows } = await sql`select from pg_database where datname = ${name}`.execute(one)
      if (rows.length > 0) return
      // Under another name until it is whole.
      const raw = `${name}_${randomUUID().replaceAll('-', '')}`
      await createFrom(one, raw, from)
      const url = new URL(adminUrl!)
      url.pathname = `/${raw}`
      const own = openDatabase(url.href, () => {}, { poolSize: 1 })
      await fill(own)
      await own.close()
      await sql`alter database ${sql.id(raw)} rename to ${sql.id(name)}`.execute(one)
    } finally {
      await sql`select pg_advisory_unlock(1)`.execute(one)
    }
  })
}

const createFrom = (db: Database['unscoped'], name: string, from: Template | undefined) =>
  sql`create database ${sql.id(name)} ${from ? sql`template ${sql.id(from.name)}` : sql``}`.execute(db)

/**
 * A database of its own on the throw-away cluster that bin/test started; with `upTo`, migrated no further than that; `empty`,
 * for a dump to be read into; with `demo`, holding the demo workshop.
 */
export async function createTestDatabase({
  upTo,
  empty = false,
  demo = false,
}: { upTo?: string; empty?: boolean; demo?: boolean } = {}): Promise<TestDatabase> {
  if (!adminUrl || !appPassword) throw new Error('NINE_RIPPLES_TEST_DATABASE_URL is not set: run ./bin/test')
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const admin = openDatabase(adminUrl, () => {}, { poolSize: 1 })
  const isOld = empty || upTo !== undefined
  const from = isOld ? undefined : demo ? demoOf(Date.now()) : MIGRATED
  if (from) await made(admin, from)
  await createFrom(admin.unscoped, name, from)
  const ownerUrl = new URL(adminUrl)
  ownerUrl.pathname = `/${name}`
  const own = openDatabase(ownerUrl.href, () => {})
  if (upTo !== undefined) await migrate(own.unscoped, upTo)
  await narrow(own.unscoped)
  const workshop = async () => {
    const workshopId = await own.homeWorkshop()
    return { workshopId, db: own.workshop(workshopId) }
  }
  const database: TestDatabase = {
    url: appUrlOf(ownerUrl.href, appPassword),
    ownerUrl: ownerUrl.href,
    owner: own.unscoped,
    ...(isOld ? { workshopId: '', db: own.unscoped } : await workshop()),
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
