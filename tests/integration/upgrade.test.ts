import { execFileSync } from 'node:child_process'
import { readdirSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { sql } from 'kysely'
import { afterAll, beforeAll, expect, it } from 'vitest'
import { outlookFrom, viewPour } from '../../core/pour'
import { migrate } from '../../server/db/migrate'
import { MIGRATIONS } from '../../server/db/migrations'
import { listCasts } from '../../server/services/pours/castLog'
import { poursById } from '../../server/services/pours/pourRecords'
import { rebuildSummaries } from '../../server/services/pours/summaries'
import { isUnreadable } from '../../shared/records'
import { createTestDatabase, type TestDatabase } from '../support/database'

/** Workshops with the demo in them, as they were kept at schemas that were in use: each named by its last migration. */
const DUMPS = fileURLToPath(new URL('../dumps/', import.meta.url))
const ROOT = fileURLToPath(new URL('../..', import.meta.url))
const dumps = readdirSync(DUMPS)

async function shapeOf(db: TestDatabase['db']) {
  const columns = await sql`select table_name, column_name, data_type, is_nullable, column_default
    from information_schema.columns where table_schema = 'public' order by 1, 2`.execute(db)
  const rules = await sql`select conrelid::regclass::text as tab, pg_get_constraintdef(oid) as rule
    from pg_constraint where connamespace = 'public'::regnamespace order by 1, 2`.execute(db)
  const indexes =
    await sql`select tablename, indexdef from pg_indexes where schemaname = 'public' order by 1, 2`.execute(
      db,
    )
  const policies =
    await sql`select tablename, policyname, roles::text, qual, with_check from pg_policies order by 1, 2`.execute(
      db,
    )
  const rights =
    await sql`select table_name, grantee, privilege_type from information_schema.role_table_grants
    where table_schema = 'public' order by 1, 2, 3`.execute(db)
  const triggers = await sql`select tgrelid::regclass::text as tab, pg_get_triggerdef(oid) as does
    from pg_trigger where not tgisinternal order by 1, 2`.execute(db)
  const functions = await sql`select pg_get_functiondef(oid) as does from pg_proc
    where pronamespace = 'public'::regnamespace order by 1`.execute(db)
  return [columns, rules, indexes, policies, rights, triggers, functions].map((r) => r.rows)
}

let direct: TestDatabase
beforeAll(async () => (direct = await createTestDatabase()))
afterAll(() => direct?.drop())

it('there are such workshops, none of a schema that never was', () => {
  expect(dumps.length).toBeGreaterThan(2)
  for (const dump of dumps) expect(Object.keys(MIGRATIONS)).toContain(dump.replace('.dump', ''))
})

it.each(dumps)(
  'what was recorded at %s is all there after an upgrade, as if the schema had always been today’s',
  async (dump) => {
    const old = await createTestDatabase({ empty: true })
    execFileSync(
      'bash',
      [
        '-c',
        '"$(. bin/lib.sh; pg_bin)/pg_restore" --exit-on-error -d "$1" "$2"',
        '-',
        old.ownerUrl,
        `${DUMPS}${dump}`,
      ],
      { cwd: ROOT },
    )
    const countOf = async (table: 'pour' | 'event' | 'mould' | 'bag' | 'photo') =>
      Number(
        (await sql<{ n: number }>`select count(*) as n from ${sql.table(table)}`.execute(old.owner)).rows[0]!
          .n,
      )
    const tables = ['pour', 'event', 'mould', 'bag', 'photo'] as const
    const before = await Promise.all(tables.map(countOf))
    expect(before[0]).toBeGreaterThan(10)
    const { db } = await old.finish()
    expect(await migrate(old.owner)).toEqual([])
    expect(await shapeOf(old.owner)).toEqual(await shapeOf(direct.owner))
    expect(await Promise.all(tables.map(countOf))).toEqual(before)
    // As the start does; then as if nothing had been kept of it.
    await rebuildSummaries(db, 'missing', poursById)
    const sums = async () => {
      const rows = await db.selectFrom('pour_summary').selectAll().orderBy('pour_id').execute()
      // What pours showed of a cause is worked out when somebody asks.
      return rows.map(({ is_observed: _, tags, tag_pieces: _p, ...row }) => ({
        ...row,
        tags: tags.filter((t) => !t.startsWith('cause:')).sort(),
      }))
    }
    const kept = await sums()
    await rebuildSummaries(db, 'all', poursById)
    expect(kept).toEqual(await sums())
    const { items } = await listCasts(db, { state: 'all', tags: [], q: '', after: '', limit: 100 })
    expect(items.length).toBeGreaterThan(10)
    const nowMs = Date.now()
    for (const pour of await poursById(
      db,
      (await db.selectFrom('pour').select('id').execute()).map((p) => p.id),
    )) {
      if (isUnreadable(pour)) throw new Error(`${pour.id}: ${pour.unreadable.join()}`)
      viewPour(outlookFrom(pour.plan, pour.events), nowMs)
    }
    await old.drop()
  },
)
