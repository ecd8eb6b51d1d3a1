import { listBowls } from '../../services/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listBowls((await useWorkshop(event)).db))
