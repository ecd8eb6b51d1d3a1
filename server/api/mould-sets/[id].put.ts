import { mouldSetPutSchema } from '../../../shared/moulds'
import { putMouldSet } from '../../services/shelf/mouldSets'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, set } = await readJson(event, mouldSetPutSchema)
  return putMouldSet((await useWorkshop(event)).db, id, revision, set)
})
