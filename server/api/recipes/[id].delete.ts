import { deleteFromCupboard } from '../../services/cupboard'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteFromCupboard(useDatabase(), 'recipe', readId(event))
  return { deleted: true }
})
