import { sql } from 'kysely'
import { workshopCookie } from '../shared/place'
import { createTestDatabase, type TestDatabase } from '../tests/support/database'
import { startServer } from '../tests/support/server'
import { fillWorkshop } from './fill'
import { rank, type Measured } from './measured'
import { VIEWS, viewTimes } from './viewTimes'

const WORKSHOPS = 10_000
const POURS_EACH = 100
/** Copied at a time: what one statement writes has to be held. */
const AT_A_TIME = 250
/** What one of them sees against a lone one. */
const MOST_RATIO = 1.5

/** Copies of the first workshop, row by row under the same ids: nothing is known by its id without its workshop. */
async function copyWorkshop({ owner, workshopId }: TestDatabase): Promise<void> {
  const { rows: columns } = await sql<{ tab: string; cols: string[] }>`
    select c.table_name as tab, array_agg(c.column_name::text order by c.ordinal_position) as cols
    from information_schema.columns c join information_schema.tables t using (table_schema, table_name)
    where c.table_schema = 'public' and t.table_type = 'BASE TABLE' and c.column_name <> 'workshop_id'
      and c.is_generated = 'NEVER' and exists (
        select from information_schema.columns w where w.table_schema = 'public' and w.table_name = c.table_name
          and w.column_name = 'workshop_id')
    group by c.table_name`.execute(owner)
  const tables = columns.filter(({ tab }) => tab !== 'change')
  await owner.connection().execute(async (one) => {
    await sql`set session_replication_role = replica`.execute(one)
    for (let made = 1; made < WORKSHOPS; made += AT_A_TIME) {
      const count = Math.min(AT_A_TIME, WORKSHOPS - made)
      await sql`create temporary table made as select gen_random_uuid() as id from generate_series(1, ${count}::int)`.execute(
        one,
      )
      await sql`insert into workshop (id, is_demo) select id, false from made`.execute(one)
      for (const { tab, cols } of tables) {
        const list = sql.join(cols.map((c) => sql.ref(c)))
        await sql`
          insert into ${sql.table(tab)} (workshop_id, ${list})
          select made.id, ${sql.join(cols.map((c) => sql.ref(`t.${c}`)))}
          from ${sql.table(tab)} t cross join made where t.workshop_id = ${workshopId}`.execute(one)
      }
      await sql`drop table made`.execute(one)
    }
    await sql`set session_replication_role = origin`.execute(one)
  })
  await sql`vacuum analyze`.execute(owner)
}

/** One workshop of ten thousand on one server and database, against the same workshop by itself. */
export async function benchWorkshops(): Promise<Measured[]> {
  const database = await createTestDatabase()
  await fillWorkshop(database, POURS_EACH)
  const lone = await startServer(database.url)
  const alone = await viewTimes(lone)
  await lone.stop()
  await copyWorkshop(database)
  const startedMs = performance.now()
  const server = await startServer(database.url)
  const startMs = performance.now() - startedMs
  const cookie = workshopCookie(new URL(server.address).port)
  const { rows: sample } = await sql<{ id: string }>`
    select id from workshop tablesample bernoulli (1) repeatable (1) limit 5`.execute(database.owner)
  const times: number[][] = []
  for (const { id } of sample) times.push(await viewTimes(server, { cookie: `${cookie}=${id}` }))
  await server.stop()
  await database.drop()
  return [
    ...VIEWS.map(([what], i): Measured => ({
      what: `${what}, one workshop of 10 000, to a lone one`,
      value:
        rank(
          times.map((t) => t[i]!),
          0.5,
        ) / alone[i]!,
      unit: '×',
      most: MOST_RATIO,
    })),
    { what: 'server start with 10 000 workshops', value: startMs, unit: 'ms', most: 5000 },
  ]
}
