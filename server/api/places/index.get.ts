import { listPlaces } from '../../services/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listPlaces((await useWorkshop(event)).db))
