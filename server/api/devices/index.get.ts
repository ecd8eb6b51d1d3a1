import { listDevices } from '../../services/devices'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'
import { lookForDevices } from '../../live/deviceDoor'

export default defineRoute(async (event) => {
  const workshop = await useWorkshop(event)
  await lookForDevices(workshop)
  return listDevices(workshop.db)
})
