import { personInputSchema } from '../../../../shared/people'
import { changePerson } from '../../../services/people'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const person = await readJson(event, personInputSchema)
  return changePerson((await useWorkshop(event)).db, id, person)
})
