import { deleteFromCupboard } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await deleteFromCupboard((await useWorkshop(event)).db, 'recipe', readId(event))
  return { deleted: true }
})
