import { loggerFileQuerySchema } from '../../../../shared/devices'
import { deleteLoggerReadings } from '../../../services/devices'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readQuery } from '../../../utils/http'

export default defineRoute(async (event) => {
  const { file } = readQuery(event, loggerFileQuerySchema)
  await deleteLoggerReadings((await useWorkshop(event)).db, readId(event), file)
  return { deleted: true }
})
