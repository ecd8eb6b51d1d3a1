import type { Me } from '../../../shared/people'
import { getSettings } from '../../services/workshop'
import { meOf, useAsker } from '../../utils/asker'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

/** Who is on this device, as the server knows it. */
export default defineRoute(async (event): Promise<Me> => {
  const asker = useAsker(event)
  const { db } = await useWorkshop(event)
  return asker.at === 'machine' ? { at: 'machine' } : meOf(asker, await getSettings(db))
})
