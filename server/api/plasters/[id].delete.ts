import { deletePlaster } from '../../services/shelf/plasters'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deletePlaster((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
