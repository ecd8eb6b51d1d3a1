import { newPersonSchema } from '../../../shared/people'
import { addPerson } from '../../services/people'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const { id, ...person } = await readJson(event, newPersonSchema)
  return addPerson((await useWorkshop(event)).db, id, person)
})
