import { sql } from 'kysely'
import { useDatabase } from '../utils/database'
import { defineRoute } from '../utils/http'

/** Healthy means: this process answers and its database does too. */
export default defineRoute(async () => {
  await sql`select 1`.execute(useDatabase())
  return { status: 'ok' }
})
