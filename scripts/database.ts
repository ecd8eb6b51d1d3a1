/**
 * Brings the database up to date and, as asked, loads the demo workshop.
 * Usage: tsx scripts/database.ts migrate | demo-if-empty | reset-demo
 */
import { openDatabase } from '../server/db/client'
import { migrate } from '../server/db/migrate'
import { clearWorkshop, loadDemo } from './demo'

const task = process.argv[2]
const url = process.env.NINE_RIPPLES_DATABASE_URL
if (!url || !['migrate', 'demo-if-empty', 'reset-demo'].includes(task ?? '')) {
  console.error('usage: NINE_RIPPLES_DATABASE_URL=… tsx scripts/database.ts migrate|demo-if-empty|reset-demo')
  process.exit(2)
}
const db = openDatabase(url, (error) => console.error(error.message))
try {
  const ran = await migrate(db)
  if (ran.length > 0) console.log(`migrated: ${ran.join(', ')}`)
  if (task === 'reset-demo') await clearWorkshop(db)
  if (task !== 'migrate') {
    // Any card, mould or pour makes it somebody's workshop: then the demo stays out of it.
    const used = await db
      .selectNoFrom(({ or, exists, selectFrom }) =>
        or([
          exists(selectFrom('pour').select('id')),
          exists(selectFrom('mould').select('id')),
          exists(selectFrom('plaster').select('id')),
        ]).as('used'),
      )
      .executeTakeFirstOrThrow()
    if (!used.used) {
      await loadDemo(db, Date.now())
      console.log('demo workshop loaded')
    }
  }
} finally {
  await db.destroy()
}
