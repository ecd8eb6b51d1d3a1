import { applyRequestSchema } from '../../../../shared/bundle'
import { applyBundle } from '../../../services/bundle/importBundle'
import { runJob } from '../../../services/bundle/jobs'
import { DomainError } from '../../../services/domainError'
import { readJson } from '../../../utils/http'
import { defineJobRoute } from '../../../utils/jobRoutes'
import { useLogger } from '../../../utils/logger'

/** Reads in what was looked through. */
export default defineJobRoute(async (event, job, { db }) => {
  const { clashes } = await readJson(event, applyRequestSchema)
  if (job.view.kind !== 'import' || job.view.state !== 'ready') throw new DomainError('not_found')
  job.view.state = 'running'
  runJob(
    job,
    () => applyBundle(db, job, clashes),
    (error) => useLogger().error({ err: error }, 'a bundle could not be read in'),
  )
  return job.view
})
