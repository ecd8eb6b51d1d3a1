import { planChangeSchema } from '../../../../shared/contracts'
import { changePlan } from '../../../services/pours/pours'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, plan } = await readJson(event, planChangeSchema)
  return changePlan((await useWorkshop(event)).db, id, revision, plan)
})
