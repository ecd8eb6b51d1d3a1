import { getSettings } from '../services/workshop'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

export default defineRoute(async (event) => getSettings((await useWorkshop(event)).db))
