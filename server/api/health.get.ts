import { sql } from 'kysely'
import { homeWorkshop } from '../utils/database'
import { DomainError } from '../services/domainError'
import { isDiskFull } from '../utils/disk'
import { defineRoute } from '../utils/http'

/** Healthy means: this process answers, its database does too, and what is recorded can be kept. */
export default defineRoute(async () => {
  await sql`select 1`.execute((await homeWorkshop()).db)
  if (await isDiskFull()) throw new DomainError('disk_full')
  return { status: 'ok' }
})
