import type { Me } from '../../shared/people'
import { getSettings } from '../services/workshop'
import { useAsker } from '../utils/asker'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

/** Who is on this device, as the server knows it. */
export default defineRoute(async (event): Promise<Me> => {
  const asker = useAsker(event)
  const { db } = await useWorkshop(event)
  if (asker.at === 'machine') return { at: 'machine' }
  const { personId, name, role, device } = asker
  return { at: 'network', personId, name, role, device, workshopName: (await getSettings(db)).workshopName }
})
