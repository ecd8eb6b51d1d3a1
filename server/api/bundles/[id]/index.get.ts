import { defineJobRoute } from '../../../utils/jobRoutes'

export default defineJobRoute(async (_, job) => job.view)
