import { listHeeds } from '../services/learnt/heeds'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

/** What later plans are reminded of. */
export default defineRoute(async (event) => ({ items: await listHeeds((await useWorkshop(event)).db) }))
