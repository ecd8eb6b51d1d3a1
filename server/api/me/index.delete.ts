import { endSession } from '../../services/people'
import { endOwnSession, requirePerson } from '../../utils/asker'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

/** Leaves this device, by oneself. */
export default defineRoute(async (event) => {
  const { id } = requirePerson(event)
  await endSession((await useWorkshop(event)).db, id)
  await endOwnSession(event)
  return { deleted: true }
})
