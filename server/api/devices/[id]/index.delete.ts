import { deleteDevice } from '../../../services/devices'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readDeviceId } from '../../../utils/http'

export default defineRoute(async (event) => {
  await deleteDevice((await useWorkshop(event)).db, readDeviceId(event))
  return { deleted: true }
})
