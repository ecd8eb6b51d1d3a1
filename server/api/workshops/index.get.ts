import { listWorkshops } from '../../services/workshops'
import { useDatabase } from '../../utils/database'
import { defineRoute } from '../../utils/http'

/** The workshops of this server: whoever sits at its own machine keeps all of them. */
export default defineRoute(async () => listWorkshops(useDatabase()))
