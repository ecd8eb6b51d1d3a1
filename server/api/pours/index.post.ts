import { newPourSchema } from '../../../shared/contracts'
import { createPour } from '../../services/pours/pours'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const { id, plan, createdAtMs } = await readJson(event, newPourSchema)
  return createPour((await useWorkshop(event)).db, id, plan, createdAtMs)
})
