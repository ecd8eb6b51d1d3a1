import { listPlaces } from '../../services/shelf/cupboard'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => listPlaces((await useWorkshop(event)).db))
