import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { openDatabase, type Db } from '../../server/db/client'

const adminUrl = process.env.NINE_RIPPLES_TEST_DATABASE_URL

/** A database of its own on the throw-away cluster that bin/test started. */
export async function createTestDatabase(): Promise<{ url: string; db: Db; drop: () => Promise<void> }> {
  if (!adminUrl) throw new Error('NINE_RIPPLES_TEST_DATABASE_URL is not set: run ./bin/test')
  const name = `test_${randomUUID().replaceAll('-', '')}`
  const admin = openDatabase(adminUrl, () => {})
  await sql`create database ${sql.id(name)}`.execute(admin)
  const url = new URL(adminUrl)
  url.pathname = `/${name}`
  const db = openDatabase(url.href, () => {})
  return {
    url: url.href,
    db,
    drop: async () => {
      await db.destroy()
      await sql`drop database if exists ${sql.id(name)} with (force)`.execute(admin)
      await admin.destroy()
    },
  }
}
