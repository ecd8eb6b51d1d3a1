import { listDevices } from '../../services/devices'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listDevices((await useWorkshop(event)).db))
