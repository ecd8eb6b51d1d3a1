import { sql } from 'kysely'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

/** Healthy means: this process answers and its database does too. */
export default defineRoute(async (event) => {
  await sql`select 1`.execute((await useWorkshop(event)).db)
  return { status: 'ok' }
})
