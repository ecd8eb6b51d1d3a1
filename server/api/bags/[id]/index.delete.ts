import { deleteBag } from '../../../services/shelf/bags'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => {
  await deleteBag((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
