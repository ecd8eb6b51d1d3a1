import { recipePutSchema } from '../../../shared/stock'
import { putRecipe } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, recipe } = await readJson(event, recipePutSchema)
  return putRecipe((await useWorkshop(event)).db, id, revision, recipe)
})
