import { listSettling } from '../../services/learnt/settling'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listSettling((await useWorkshop(event)).db))
