import { spoonTestSchema } from '../../../../shared/stock'
import { addSpoonTest } from '../../../services/shelf/bags'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  return addSpoonTest((await useWorkshop(event)).db, id, await readJson(event, spoonTestSchema))
})
