import { personNamesSchema } from '../../../../shared/people'
import { giveNames } from '../../../services/people'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const { names } = await readJson(event, personNamesSchema)
  return giveNames((await useWorkshop(event)).db, readId(event), names)
})
