import { pairSchema, type Me } from '../../shared/people'
import { DomainError } from '../services/domainError'
import { takePairing } from '../services/people'
import { beginSession, cameByNetwork, sessionOf } from '../utils/asker'
import { useDatabase } from '../utils/database'
import { defineRoute, readJson } from '../utils/http'

/** Lets this device in by a code that the desk shows, or has sent. At the machine itself there is nothing to be let into. */
export default defineRoute(async (event): Promise<Me> => {
  if (!cameByNetwork(event)) throw new DomainError('not_allowed')
  const asked = await readJson(event, pairSchema)
  const before = await sessionOf(event)
  return beginSession(event, await takePairing(useDatabase(), asked.token, asked.device, before))
})
