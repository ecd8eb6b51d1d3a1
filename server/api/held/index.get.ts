import { listHeld } from '../../services/held'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listHeld((await useWorkshop(event)).db))
