import { listRecipes } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listRecipes((await useWorkshop(event)).db))
