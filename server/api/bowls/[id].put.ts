import { bowlInputSchema } from '../../../shared/stock'
import { putBowl } from '../../services/cupboard'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  return putBowl(useDatabase(), id, await readJson(event, bowlInputSchema))
})
