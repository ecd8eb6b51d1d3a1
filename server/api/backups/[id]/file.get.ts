import { useConfig } from '../../../config'
import { openBackup } from '../../../services/backups'
import { defineRoute } from '../../../utils/http'

/** A backup as it is: every workshop of this server is in it. */
export default defineRoute(async (event) => {
  const name = getRouterParam(event, 'id') ?? ''
  const { bytes, content } = await openBackup(useConfig().backupsFolder, name)
  setResponseHeaders(event, {
    'content-type': 'application/octet-stream',
    'content-length': bytes,
    'content-disposition': `attachment; filename="${name}"`,
  })
  return sendStream(event, content)
})
