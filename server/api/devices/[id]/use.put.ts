import { deviceUsePutSchema } from '../../../../shared/devices'
import { lookForDevices } from '../../../live/deviceDoor'
import { putDevice } from '../../../services/devices'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readDeviceId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readDeviceId(event)
  const { channel, to } = await readJson(event, deviceUsePutSchema)
  const workshop = await useWorkshop(event)
  // Whoever puts it somewhere has looked.
  await lookForDevices(workshop)
  return putDevice(workshop.db, id, channel, to)
})
