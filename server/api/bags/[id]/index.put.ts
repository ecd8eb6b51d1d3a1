import { bagPutSchema } from '../../../../shared/stock'
import { putBag } from '../../../services/shelf/bags'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, bag } = await readJson(event, bagPutSchema)
  return putBag((await useWorkshop(event)).db, id, revision, bag)
})
