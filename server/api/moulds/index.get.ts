import { pageQuerySchema } from '../../../shared/contracts'
import { listMoulds } from '../../services/moulds'
import { useDatabase } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) => listMoulds(useDatabase(), readQuery(event, pageQuerySchema)))
