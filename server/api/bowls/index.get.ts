import { listBowls } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listBowls((await useWorkshop(event)).db))
