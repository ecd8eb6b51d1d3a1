import { endJob } from '../../../services/bundle/jobs'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => {
  await endJob((await useWorkshop(event)).id, readId(event))
  return { deleted: true }
})
