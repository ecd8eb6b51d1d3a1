import { recipeInputSchema } from '../../../shared/stock'
import { putRecipe } from '../../services/cupboard'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  return putRecipe(useDatabase(), id, await readJson(event, recipeInputSchema))
})
