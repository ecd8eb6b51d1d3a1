import { applyRequestSchema } from '../../../../shared/bundle'
import { applyBundle } from '../../../services/bundle/importBundle'
import { jobOf, runJob } from '../../../services/bundle/jobs'
import { DomainError } from '../../../services/domainError'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'
import { useLogger } from '../../../utils/logger'

/** Reads in what was looked through. */
export default defineRoute(async (event) => {
  const jobId = readId(event)
  const { clashes } = await readJson(event, applyRequestSchema)
  const { id, db } = await useWorkshop(event)
  const job = jobOf(id, jobId)
  if (job.view.kind !== 'import' || job.view.state !== 'ready') throw new DomainError('not_found')
  job.view.state = 'running'
  runJob(
    job,
    () => applyBundle(db, job, clashes),
    (error) => useLogger().error({ err: error }, 'a bundle could not be read in'),
  )
  return job.view
})
