import { pageQuerySchema } from '../../shared/contracts'
import { listOpen } from '../services/pours/pourRecords'
import { useWorkshop } from '../utils/database'
import { defineRoute, readQuery } from '../utils/http'

/** Pours on the go, whole: what the bench shows and the bell rings for. */
export default defineRoute(async (event) =>
  listOpen((await useWorkshop(event)).db, readQuery(event, pageQuerySchema)),
)
