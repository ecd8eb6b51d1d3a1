import { pageQuerySchema } from '../../../shared/contracts'
import { listPlasters } from '../../services/plasters'
import { useDatabase } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) => listPlasters(useDatabase(), readQuery(event, pageQuerySchema)))
