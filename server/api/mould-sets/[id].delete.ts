import { deleteMouldSet } from '../../services/shelf/mouldSets'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteMouldSet((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
