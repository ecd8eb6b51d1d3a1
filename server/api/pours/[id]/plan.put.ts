import { planChangeSchema } from '../../../../shared/contracts'
import { changePlan } from '../../../services/pours'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, plan } = await readJson(event, planChangeSchema)
  return changePlan(useDatabase(), id, revision, plan)
})
