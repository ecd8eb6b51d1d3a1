import { pageQuerySchema } from '../../../shared/contracts'
import { listPlasters } from '../../services/shelf/plasters'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) =>
  listPlasters((await useWorkshop(event)).db, readQuery(event, pageQuerySchema)),
)
