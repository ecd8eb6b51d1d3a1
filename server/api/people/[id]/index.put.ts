import { personInputSchema } from '../../../../shared/people'
import { changePerson } from '../../../services/people'
import { useAsker } from '../../../utils/asker'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const person = await readJson(event, personInputSchema)
  // Whoever sits at the machine keeps it anyway.
  return changePerson((await useWorkshop(event)).db, id, person, useAsker(event).at === 'network')
})
