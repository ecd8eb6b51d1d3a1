import { bowlPutSchema } from '../../../shared/stock'
import { putBowl } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, bowl } = await readJson(event, bowlPutSchema)
  return putBowl((await useWorkshop(event)).db, id, revision, bowl)
})
