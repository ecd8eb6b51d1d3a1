/**
 * Brings the database up to date and, as asked, loads the demo workshop or makes the summaries anew.
 * Usage: tsx scripts/database.ts app-role | pending | migrate | demo-if-empty | reset-demo | summaries
 */
import { sql } from 'kysely'
import { appUrlOf, setUpAppRole } from '../server/db/appRole'
import { openDatabase, type Db } from '../server/db/client'
import { migrate, pendingMigrations } from '../server/db/migrate'

const TASKS = ['app-role', 'pending', 'migrate', 'demo-if-empty', 'reset-demo', 'summaries'] as const
const task = TASKS.find((t) => t === process.argv[2])
const ownerUrl = process.env.NINE_RIPPLES_OWNER_URL
const password = process.env.NINE_RIPPLES_APP_PASSWORD
if (!ownerUrl || !password || !task) {
  console.error(
    `usage: NINE_RIPPLES_OWNER_URL=… NINE_RIPPLES_APP_PASSWORD=… tsx scripts/database.ts ${TASKS.join('|')}`,
  )
  process.exit(2)
}
const complain = (error: Error) => console.error(error.message)
const owner = openDatabase(ownerUrl, complain, { poolSize: 2 })
const app = openDatabase(appUrlOf(ownerUrl, password), complain, { poolSize: 2 })

/** Any card, mould or pour makes it somebody's workshop: then the demo stays out of it. */
async function isUsed(db: Db): Promise<boolean> {
  const { rows } = await sql<{ used: boolean }>`
    select exists (select from pour) or exists (select from mould) or exists (select from plaster)
      or exists (select from bowl) or exists (select from place) or exists (select from recipe) as used`.execute(
    db,
  )
  return rows[0]!.used
}

/** In one question of all of them: each start asks. */
async function workshopsToSum(which: 'all' | 'missing'): Promise<string[]> {
  const { rows } = await sql<{ id: string }>`
    select w.id from workshop w where ${which === 'all'} or w.id in (
      select p.workshop_id from pour p
      where not exists (select from pour_summary s where s.workshop_id = p.workshop_id and s.pour_id = p.id))
    order by w.created_at, w.id`.execute(owner.unscoped)
  return rows.map((r) => r.id)
}

async function run(): Promise<void> {
  if (task === 'pending') return console.log((await pendingMigrations(owner.unscoped)).join('\n'))
  await setUpAppRole(owner.unscoped, password!)
  if (task === 'app-role') return
  const ran = await migrate(owner.unscoped)
  if (ran.length > 0) console.log(`migrated: ${ran.join(', ')}`)
  // Each start asks, and mostly finds nothing to do: what does it is read in when it is wanted.
  const demo = () => import('../server/demo')
  const home = await app.homeWorkshop()
  if (task === 'reset-demo') await (await demo()).clearUnseen(owner.workshop(home))
  const { rebuildSummaries } = await import('../server/services/pours/summaries')
  const { poursById } = await import('../server/services/pours/pourRecords')
  let summed = 0
  for (const id of await workshopsToSum(task === 'summaries' ? 'all' : 'missing'))
    summed += await rebuildSummaries(
      app.workshop(id),
      task === 'summaries' ? 'all' : 'missing',
      poursById,
      (done) => console.log(`summed up: ${done} pours`),
    )
  if (task === 'summaries') console.log(`summaries made anew: ${summed} pours`)
  const db = app.workshop(home)
  if ((task === 'demo-if-empty' || task === 'reset-demo') && !(await isUsed(db))) {
    await (await demo()).loadDemo(db, Date.now())
    console.log('demo workshop loaded')
  }
}

try {
  await run()
} catch (error) {
  // invalid_password: what to do is said by who asked.
  if ((error as { code?: string }).code !== '28P01') throw error
  process.exitCode = 3
} finally {
  await Promise.all([owner.close(), app.close()])
}
