import { jobOf } from '../../../services/bundle/jobs'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readId } from '../../../utils/http'

export default defineRoute(async (event) => jobOf((await useWorkshop(event)).id, readId(event)).view)
