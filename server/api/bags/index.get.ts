import { pageQuerySchema } from '../../../shared/contracts'
import { listBags } from '../../services/bags'
import { useDatabase } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) => listBags(useDatabase(), readQuery(event, pageQuerySchema)))
