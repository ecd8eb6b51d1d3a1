import { loggerReadingsSchema } from '../../../../shared/devices'
import { addLoggerReadings } from '../../../services/devices'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const pourId = readId(event)
  const posted = await readJson(event, loggerReadingsSchema)
  return addLoggerReadings((await useWorkshop(event)).db, pourId, posted)
})
