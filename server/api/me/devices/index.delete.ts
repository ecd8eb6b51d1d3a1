import { endSessionsOf } from '../../../services/people'
import { requirePerson } from '../../../utils/asker'
import { useWorkshop } from '../../../utils/database'
import { defineRoute } from '../../../utils/http'

/** Puts all other devices of one's own out at once. */
export default defineRoute(async (event) => {
  const { personId, id } = requirePerson(event)
  await endSessionsOf((await useWorkshop(event)).db, personId, { but: id })
  return { deleted: true }
})
