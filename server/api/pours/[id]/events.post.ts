import { postedEventSchema } from '../../../../shared/pourEvents'
import { recordEvent } from '../../../services/pours/pours'
import { useAsker } from '../../../utils/asker'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const pourId = readId(event)
  const posted = await readJson(event, postedEventSchema)
  const asker = useAsker(event)
  const by = asker.at === 'network' ? asker : undefined
  return recordEvent((await useWorkshop(event)).db, pourId, posted, Date.now(), by)
})
