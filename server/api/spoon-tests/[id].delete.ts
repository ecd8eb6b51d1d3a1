import { deleteSpoonTest } from '../../services/shelf/bags'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteSpoonTest((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
