import { listQuerySchema } from '../../../shared/contracts'
import { listCasts } from '../../services/pours/castLog'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) =>
  listCasts((await useWorkshop(event)).db, readQuery(event, listQuerySchema)),
)
