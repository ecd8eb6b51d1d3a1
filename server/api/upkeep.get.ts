import { listUpkeep } from '../services/learnt/upkeep'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

/** Pieces in use that want something. */
export default defineRoute(async (event) => ({ items: await listUpkeep((await useWorkshop(event)).db) }))
