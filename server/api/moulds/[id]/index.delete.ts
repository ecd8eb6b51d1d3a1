import { deleteMould } from '../../../services/moulds'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => {
  await deleteMould(useDatabase(), readId(event))
  return { deleted: true }
})
