/**
 * Lets a keeper into a workshop of a server that nobody sits at: prints a link, good once and for three days. The workshop is
 * made where there is none of this name; without a name it is the first.
 * Usage: NINE_RIPPLES_OWNER_URL=… tsx scripts/invite.ts ADDRESS [WORKSHOP]
 */
import { randomUUID } from 'node:crypto'
import { openDatabase } from '../server/db/client'
import { addPerson, offerPairing } from '../server/services/people'
import { listWorkshops, makeWorkshop } from '../server/services/workshops'

const [address, wanted] = process.argv.slice(2)
const ownerUrl = process.env.NINE_RIPPLES_OWNER_URL
if (!ownerUrl || !address) {
  console.error('usage: NINE_RIPPLES_OWNER_URL=… tsx scripts/invite.ts ADDRESS [WORKSHOP]')
  process.exit(2)
}
const NAME = 'Keeper'
const owner = openDatabase(ownerUrl, (error) => console.error(error.message), { poolSize: 1 })

/** @returns undefined where several have that name: which is meant nobody can tell. */
async function workshopIdOf(name: string | undefined): Promise<string | undefined> {
  if (name === undefined) return owner.homeWorkshop()
  const found = (await listWorkshops(owner)).filter((w) => w.name === name)
  if (found.length > 0) return found.length === 1 ? found[0]!.id : undefined
  const id = randomUUID()
  await makeWorkshop(owner, id)
  await owner
    .workshop(id)
    .updateTable('settings')
    .set({ workshop_name: name })
    .where('workshop_id', '=', id)
    .execute()
  return id
}

try {
  const id = await workshopIdOf(wanted)
  if (id === undefined) {
    console.error(`Several workshops are called ${wanted}. Give one of them another name first.`)
    process.exitCode = 1
  } else {
    const db = owner.workshop(id)
    const known = await db
      .selectFrom('person')
      .select('id')
      .where('workshop_id', '=', id)
      .where('name', '=', NAME)
      .where('role', '=', 'keeper')
      .where('gone_at', 'is', null)
      .executeTakeFirst()
    const personId = known?.id ?? (await addPerson(db, randomUUID(), { name: NAME, role: 'keeper' })).id
    const { token } = await offerPairing(db, id, personId, 'invitation')
    console.log(`${address}/pair#${token}`)
  }
} finally {
  await owner.close()
}
