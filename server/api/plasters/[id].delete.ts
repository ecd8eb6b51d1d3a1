import { deletePlaster } from '../../services/plasters'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deletePlaster(useDatabase(), readId(event))
  return { deleted: true }
})
