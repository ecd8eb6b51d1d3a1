import { signInSchema, type Me } from '../../shared/people'
import { signIn } from '../services/accounts'
import { DomainError } from '../services/domainError'
import { addressOf, beginSession, cameByNetwork, signInGate } from '../utils/asker'
import { useDatabase } from '../utils/database'
import { defineRoute, readJson } from '../utils/http'

/** Lets this device in by name and password. */
export default defineRoute(async (event): Promise<Me> => {
  if (!cameByNetwork(event)) throw new DomainError('not_allowed')
  const asked = await readJson(event, signInSchema)
  const session = await signInGate.attempt(addressOf(event), asked.name, Date.now(), () =>
    signIn(useDatabase(), asked),
  )
  return beginSession(event, session)
})
