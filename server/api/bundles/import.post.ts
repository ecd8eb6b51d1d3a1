import { createWriteStream } from 'node:fs'
import { join } from 'node:path'
import { pipeline } from 'node:stream/promises'
import { BUNDLE_FILE } from '../../services/bundle/exportBundle'
import { lookAtBundle } from '../../services/bundle/importBundle'
import { endJob, runJob } from '../../services/bundle/jobs'
import { DomainError } from '../../services/domainError'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'
import { beginJob } from '../../utils/jobRoutes'
import { useLogger } from '../../utils/logger'

/** A bundle comes in, straight to the disk, and is looked through: nothing of it is used before somebody says so. */
export default defineRoute(async (event) => {
  const type = getRequestHeader(event, 'content-type') ?? ''
  if (!/^application\/zip\s*(;|$)/i.test(type)) throw new DomainError('wrong_content_type')
  const workshop = await useWorkshop(event)
  const bytes = Number(getRequestHeader(event, 'content-length'))
  if (!Number.isFinite(bytes))
    throw new DomainError('invalid_input', [{ path: 'file', message: 'has no length' }])
  const job = await beginJob(workshop, 'import', bytes)
  try {
    await pipeline(event.node.req, createWriteStream(join(job.folder, BUNDLE_FILE)))
  } catch (error) {
    await endJob(job)
    throw error
  }
  runJob(
    job,
    () => lookAtBundle(workshop.db, job),
    (error) => useLogger().error({ err: error }, 'a bundle could not be read'),
  )
  return job.view
})
