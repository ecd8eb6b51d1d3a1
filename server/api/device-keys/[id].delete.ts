import { endKey } from '../../live/deviceDoor'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readId } from '../../utils/http'

export default defineRoute(async (event) => {
  await endKey(await useWorkshop(event), readId(event))
  return { deleted: true }
})
