import { newDeviceKeySchema } from '../../../shared/devices'
import { offerDeviceKey } from '../../services/deviceKeys'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

/** A key for one device more; it is told here, and nowhere again. */
export default defineRoute(async (event) => {
  const { id, name } = await readJson(event, newDeviceKeySchema)
  const workshop = await useWorkshop(event)
  return offerDeviceKey(workshop.db, workshop.id, id, name)
})
