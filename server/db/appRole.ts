import { sql } from 'kysely'
import type { Db } from './client'

/** The application's own role: owns nothing, and row security holds it to one workshop. */
export const APP_ROLE = 'ripples_app'

/** Makes the role where it is missing and gives it this password; it belongs to the whole cluster. */
export async function setUpAppRole(owner: Db, password: string): Promise<void> {
  await sql`
    do $$ begin
      create role ripples_app nologin nosuperuser nocreatedb nocreaterole noinherit nobypassrls;
    exception when duplicate_object or unique_violation then null;
    end $$`.execute(owner)
  await sql`alter role ${sql.id(APP_ROLE)} login password ${sql.lit(password)}`.execute(owner)
}

/** The same database, entered as the application. */
export function appUrlOf(ownerUrl: string, password: string): string {
  const url = new URL(ownerUrl)
  url.username = APP_ROLE
  url.password = password
  return url.href
}
