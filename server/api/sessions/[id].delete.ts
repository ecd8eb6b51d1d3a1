import { endSession } from '../../services/people'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

/** Puts one device out. */
export default defineRoute(async (event) => {
  await endSession((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
