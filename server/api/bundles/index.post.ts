import { exportRequestSchema } from '../../../shared/bundle'
import { databaseBytes, exportBundle } from '../../services/bundle/exportBundle'
import { runJob } from '../../services/bundle/jobs'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'
import { beginJob } from '../../utils/jobRoutes'
import { useLogger } from '../../utils/logger'

/** Begins to write a bundle; it is asked for under its id. */
export default defineRoute(async (event) => {
  const request = await readJson(event, exportRequestSchema)
  const workshop = await useWorkshop(event)
  const { db } = workshop
  // The database is never smaller than what comes out of it.
  const job = await beginJob(workshop, 'export', request.of === 'workshop' ? await databaseBytes(db) : 0)
  runJob(
    job,
    () => exportBundle(db, request, job),
    (error) => useLogger().error({ err: error }, 'a bundle could not be written'),
  )
  return job.view
})
