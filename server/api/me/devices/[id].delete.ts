import { endSessionsOf } from '../../../services/people'
import { requirePerson } from '../../../utils/asker'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

/** Puts another device of one's own out. */
export default defineRoute(async (event) => {
  const { personId } = requirePerson(event)
  await endSessionsOf((await useWorkshop(event)).db, personId, { only: readId(event) })
  return { deleted: true }
})
