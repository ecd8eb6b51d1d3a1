import { newWorkshopSchema } from '../../../shared/workshops'
import { openDemo } from '../../demo/lookRound'
import { makeWorkshop } from '../../services/workshops'
import { useDatabase } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

/** Makes another workshop, or the one for looking round in, and says which it is. */
export default defineRoute(async (event) => {
  const asked = await readJson(event, newWorkshopSchema)
  if ('demo' in asked) return { id: await openDemo(useDatabase(), Date.now()) }
  await makeWorkshop(useDatabase(), asked.id)
  return { id: asked.id }
})
