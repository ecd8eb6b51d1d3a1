import { deletePhoto } from '../../services/photos'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deletePhoto((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
