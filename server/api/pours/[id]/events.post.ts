import { newEventSchema } from '../../../../shared/contracts'
import { recordEvent } from '../../../services/pours'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const pourId = readId(event)
  const posted = await readJson(event, newEventSchema)
  return recordEvent(useDatabase(), pourId, { ...posted, id: posted.id.toLowerCase() }, Date.now())
})
