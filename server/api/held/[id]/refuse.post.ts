import { refuseHeld } from '../../../services/held'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

/** All that waits of this person. */
export default defineRoute(async (event) => {
  await refuseHeld((await useWorkshop(event)).db, readId(event))
  return { refused: true }
})
