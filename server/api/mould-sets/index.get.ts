import { listMouldSets } from '../../services/mouldSets'
import { useDatabase } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async () => listMouldSets(useDatabase()))
