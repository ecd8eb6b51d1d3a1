import { endJob } from '../../../services/bundle/jobs'
import { defineJobRoute } from '../../../utils/jobRoutes'

export default defineJobRoute(async (_, job) => {
  await endJob(job)
  return { deleted: true }
})
