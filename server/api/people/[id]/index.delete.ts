import { putOut } from '../../../services/people'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => {
  await putOut((await useWorkshop(event)).db, readId(event))
  return { deleted: true }
})
