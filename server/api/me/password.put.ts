import { passwordSchema } from '../../../shared/people'
import { putPassword } from '../../services/accounts'
import { addressOf, requirePerson, signInGate } from '../../utils/asker'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const { personId } = requirePerson(event)
  const asked = await readJson(event, passwordSchema)
  const { db } = await useWorkshop(event)
  await signInGate.attempt(addressOf(event), personId, Date.now(), () => putPassword(db, personId, asked))
  return { kept: true }
})
