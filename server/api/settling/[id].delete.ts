import { deleteSettling } from '../../services/learnt/settling'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteSettling((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
