import { jobQuerySchema } from '../../../shared/contracts'
import { lastMixed } from '../../services/pours/castLog'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) =>
  lastMixed((await useWorkshop(event)).db, readQuery(event, jobQuerySchema)),
)
