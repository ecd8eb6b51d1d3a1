import { putOut } from '../../../services/people'
import { useAsker } from '../../../utils/asker'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => {
  // Whoever sits at the machine keeps it anyway.
  await putOut((await useWorkshop(event)).db, readId(event), useAsker(event).at === 'network')
  return { deleted: true }
})
