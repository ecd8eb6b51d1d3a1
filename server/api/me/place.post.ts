import { enterSchema, type Me } from '../../../shared/people'
import { enterPlace } from '../../services/accounts'
import { beginSession, requirePerson } from '../../utils/asker'
import { useDatabase, useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

/** Into another workshop that one belongs to, with this device. */
export default defineRoute(async (event): Promise<Me> => {
  const asker = requirePerson(event)
  const { workshopId } = await readJson(event, enterSchema)
  await useWorkshop(event)
  return beginSession(event, await enterPlace(useDatabase(), asker, workshopId))
})
