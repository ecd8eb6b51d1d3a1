import { newMouldSchema } from '../../../shared/moulds'
import { createMould } from '../../services/moulds'
import { useDatabase } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const { id, mould } = await readJson(event, newMouldSchema)
  return createMould(useDatabase(), id.toLowerCase(), mould)
})
