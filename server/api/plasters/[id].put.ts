import { plasterPutSchema } from '../../../shared/stock'
import { putPlaster } from '../../services/shelf/plasters'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, plaster } = await readJson(event, plasterPutSchema)
  return putPlaster((await useWorkshop(event)).db, id, revision, plaster)
})
