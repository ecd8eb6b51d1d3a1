import { spoonTestSchema } from '../../../../shared/stock'
import { addSpoonTest } from '../../../services/bags'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  return addSpoonTest(useDatabase(), id, await readJson(event, spoonTestSchema))
})
