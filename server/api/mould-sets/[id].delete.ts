import { deleteMouldSet } from '../../services/mouldSets'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteMouldSet(useDatabase(), readId(event))
  return { deleted: true }
})
