import { placePutSchema } from '../../../shared/learning'
import { putPlace } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, place } = await readJson(event, placePutSchema)
  return putPlace((await useWorkshop(event)).db, id, revision, place)
})
