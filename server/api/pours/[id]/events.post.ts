import { postedEventSchema } from '../../../../shared/pourEvents'
import { recordEvent } from '../../../services/pours/pours'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const pourId = readId(event)
  const posted = await readJson(event, postedEventSchema)
  return recordEvent((await useWorkshop(event)).db, pourId, posted, Date.now())
})
