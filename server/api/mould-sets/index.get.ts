import { listMouldSets } from '../../services/shelf/mouldSets'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listMouldSets((await useWorkshop(event)).db))
