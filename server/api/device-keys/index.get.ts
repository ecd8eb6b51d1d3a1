import type { DeviceKeysAnswer } from '../../../shared/devices'
import { useConfig } from '../../config'
import { listDeviceKeys } from '../../services/deviceKeys'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event): Promise<DeviceKeysAnswer> => ({
  keys: await listDeviceKeys((await useWorkshop(event)).db),
  address: useConfig().deviceNetwork ?? null,
}))
