import { mouldPutSchema } from '../../../../shared/moulds'
import { putMould } from '../../../services/shelf/moulds'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, mould } = await readJson(event, mouldPutSchema)
  return putMould((await useWorkshop(event)).db, id, revision, mould)
})
