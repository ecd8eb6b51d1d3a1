import { listMoulds } from '../../services/workshop'
import { useDatabase } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async () => listMoulds(useDatabase()))
