import { settlingEntrySchema } from '../../../shared/stock'
import { addSettling } from '../../services/learnt/settling'
import { useAsker } from '../../utils/asker'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const entry = await readJson(event, settlingEntrySchema)
  const asker = useAsker(event)
  const who = asker.at === 'network' ? asker.name : entry.who
  return addSettling((await useWorkshop(event)).db, { ...entry, who })
})
