import type { MyAccount } from '../../../shared/people'
import { accountNameOf, myPlaces } from '../../services/accounts'
import { peopleById } from '../../services/people'
import { requirePerson } from '../../utils/asker'
import { useDatabase, useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

/** What somebody is told of themselves: how they sign in, where they belong, on which devices they are. */
export default defineRoute(async (event): Promise<MyAccount> => {
  const { personId } = requirePerson(event)
  const { db } = await useWorkshop(event)
  const [card] = await peopleById(db, [personId])
  return {
    signInName: (await accountNameOf(db, personId)) ?? null,
    places: await myPlaces(useDatabase(), db, personId),
    devices: card?.devices ?? [],
  }
})
