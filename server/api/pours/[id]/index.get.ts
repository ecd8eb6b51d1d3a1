import { getPour } from '../../../services/pours'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => getPour(useDatabase(), readId(event)))
