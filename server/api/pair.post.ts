import { pairSchema, type Me } from '../../shared/people'
import { DomainError } from '../services/domainError'
import { takePairing } from '../services/people'
import { getSettings } from '../services/workshop'
import { beginSession, cameByNetwork } from '../utils/asker'
import { useDatabase } from '../utils/database'
import { defineRoute, readJson } from '../utils/http'

/** Lets this device in by a code that the desk shows. At the machine itself there is nothing to be let into. */
export default defineRoute(async (event): Promise<Me> => {
  if (!cameByNetwork(event)) throw new DomainError('not_allowed')
  const asked = await readJson(event, pairSchema)
  const session = await takePairing(useDatabase(), asked.token, asked.device)
  await beginSession(event, session)
  const { workshopId, personId, name, role, device } = session
  const { workshopName } = await getSettings(useDatabase().workshop(workshopId))
  return { at: 'network', personId, name, role, device, workshopName }
})
