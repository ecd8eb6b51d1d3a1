import { heldSchema } from '../../../shared/people'
import { holdEvents } from '../../services/held'
import { requireEndedSession } from '../../utils/asker'
import { defineRoute, readJson } from '../../utils/http'

/** From a device that was put out: what was recorded on it is left with whoever keeps the workshop. */
export default defineRoute(async (event) => {
  const { db, ...by } = await requireEndedSession(event)
  const { events } = await readJson(event, heldSchema)
  return { held: await holdEvents(db, by, events) }
})
