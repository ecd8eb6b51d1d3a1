import { pairingSchema } from '../../../../shared/people'
import { offerPairing } from '../../../services/people'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

/** A code by which one more device of this person is let in. */
export default defineRoute(async (event) => {
  const asked = await readJson(event, pairingSchema)
  const { id, db } = await useWorkshop(event)
  return offerPairing(db, id, readId(event), asked.for)
})
