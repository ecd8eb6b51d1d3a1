import { listQuerySchema } from '../../../shared/contracts'
import { listCasts } from '../../services/pours/castLog'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'
import { lookBack } from '../../utils/replica'

export default defineRoute(async (event) => {
  const query = readQuery(event, listQuerySchema)
  return lookBack(await useWorkshop(event), (db) => listCasts(db, query))
})
