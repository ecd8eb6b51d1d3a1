import { deviceUsePutSchema } from '../../../../shared/devices'
import { putDevice } from '../../../services/devices'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readDeviceId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readDeviceId(event)
  const { channel, to } = await readJson(event, deviceUsePutSchema)
  return putDevice((await useWorkshop(event)).db, id, channel, to)
})
