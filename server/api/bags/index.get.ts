import { pageQuerySchema } from '../../../shared/contracts'
import { listBags } from '../../services/shelf/bags'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) =>
  listBags((await useWorkshop(event)).db, readQuery(event, pageQuerySchema)),
)
