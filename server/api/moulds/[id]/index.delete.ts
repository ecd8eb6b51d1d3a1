import { deleteMould } from '../../../services/shelf/moulds'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => {
  await deleteMould((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
