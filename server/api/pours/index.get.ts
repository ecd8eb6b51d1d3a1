import { listQuerySchema } from '../../../shared/contracts'
import { listPours } from '../../services/pours'
import { useDatabase } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) => listPours(useDatabase(), readQuery(event, listQuerySchema)))
