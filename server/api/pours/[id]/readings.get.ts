import { readingsOf } from '../../../services/devices'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => readingsOf((await useWorkshop(event)).db, readId(event)))
