import { deletePhoto } from '../../services/mouldPhotos'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deletePhoto(useDatabase(), readId(event))
  return { deleted: true }
})
