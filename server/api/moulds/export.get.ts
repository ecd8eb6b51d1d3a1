import { Readable } from 'node:stream'
import { exportMoulds } from '../../services/shelf/mouldBundle'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => {
  const { db } = await useWorkshop(event)
  setResponseHeaders(event, {
    'content-type': 'application/json',
    'content-disposition': 'attachment; filename="moulds.json"',
  })
  return sendStream(event, Readable.from(exportMoulds(db, 'places' in getQuery(event))))
})
