import { endSession } from '../services/people'
import { DomainError } from '../services/domainError'
import { endOwnSession, useAsker } from '../utils/asker'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

/** Leaves this device, by oneself. At the machine itself there is nothing to leave. */
export default defineRoute(async (event) => {
  const asker = useAsker(event)
  if (asker.at === 'machine') throw new DomainError('not_allowed')
  await endSession((await useWorkshop(event)).db, asker.id)
  await endOwnSession(event)
  return { deleted: true }
})
