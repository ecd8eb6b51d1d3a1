import { createReadStream } from 'node:fs'
import { stat } from 'node:fs/promises'
import { join } from 'node:path'
import { BUNDLE_FILE } from '../../../services/bundle/exportBundle'
import { DomainError } from '../../../services/domainError'
import { defineJobRoute } from '../../../utils/jobRoutes'

export default defineJobRoute(async (event, job) => {
  if (job.view.kind !== 'export' || job.view.state !== 'ready') throw new DomainError('not_found')
  const path = join(job.folder, BUNDLE_FILE)
  const { size } = await stat(path)
  const name = (job.view.name ?? 'workshop').replace(/[^\p{L}\p{N} .-]/gu, '').trim() || 'workshop'
  setResponseHeaders(event, {
    'content-type': 'application/zip',
    'content-length': size,
    'content-disposition': `attachment; filename="workshop.zip"; filename*=UTF-8''${encodeURIComponent(`${name}.zip`)}`,
  })
  return sendStream(event, createReadStream(path))
})
