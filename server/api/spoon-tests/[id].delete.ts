import { deleteSpoonTest } from '../../services/bags'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteSpoonTest(useDatabase(), readId(event))
  return { deleted: true }
})
