import { getPour } from '../../../services/pours/pourRecords'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => getPour((await useWorkshop(event)).db, readId(event)))
