import { exportRequestSchema } from '../../../shared/bundle'
import { useConfig } from '../../config'
import { databaseBytes, exportBundle } from '../../services/bundle/exportBundle'
import { openJob, runJob } from '../../services/bundle/jobs'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'
import { useLogger } from '../../utils/logger'

/** Begins to write a bundle; it is asked for under its id. */
export default defineRoute(async (event) => {
  const request = await readJson(event, exportRequestSchema)
  const { id, db } = await useWorkshop(event)
  // The database is never smaller than what comes out of it.
  const job = await openJob(
    { workshopId: id, kind: 'export', nowMs: Date.now() },
    useConfig().workFolder,
    request.of === 'workshop' ? await databaseBytes(db) : 0,
  )
  runJob(
    job,
    () => exportBundle(db, request, job),
    (error) => useLogger().error({ err: error }, 'a bundle could not be written'),
  )
  return job.view
})
