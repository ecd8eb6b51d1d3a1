import { settlingEntrySchema } from '../../../shared/stock'
import { addSettling } from '../../services/learnt/settling'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const entry = await readJson(event, settlingEntrySchema)
  return addSettling((await useWorkshop(event)).db, entry)
})
