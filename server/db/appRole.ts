import { sql } from 'kysely'
import type { Db } from './client'

/** The application's own role: owns nothing, and row security holds it to one workshop. */
export const APP_ROLE = 'ripples_app'

/** Whose the few functions are that see past row security; nobody enters as it. */
const DEFINER_ROLE = 'ripples_definer'

/** Makes the roles where they are missing and gives the application's this password; they belong to the whole cluster. */
export async function setUpAppRole(owner: Db, password: string): Promise<void> {
  for (const [role, may] of [
    [APP_ROLE, 'nobypassrls'],
    [DEFINER_ROLE, 'bypassrls'],
  ] as const)
    await sql`
      do $$ begin
        create role ${sql.id(role)} nologin nosuperuser nocreatedb nocreaterole noinherit ${sql.raw(may)};
      exception when duplicate_object or unique_violation then null;
      end $$`.execute(owner)
  await narrow(owner)
  await sql`alter role ${sql.id(APP_ROLE)} login password ${sql.lit(password)}`.execute(owner)
}

/** Nobody but the owner puts tables of their own beside the workshop's. A right of the database, which no copy takes along. */
export async function narrow(owner: Db): Promise<void> {
  await sql`
    do $$ begin
      execute format('revoke temporary on database %I from public', current_database());
    end $$`.execute(owner)
  await sql`revoke create on schema public from public`.execute(owner)
}

/** The same database, entered as the application. */
export function appUrlOf(ownerUrl: string, password: string): string {
  const url = new URL(ownerUrl)
  url.username = APP_ROLE
  url.password = password
  return url.href
}
