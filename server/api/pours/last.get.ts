import { LAST_CASTS } from '../../../shared/records'
import { lastEnded } from '../../services/pours/pourRecords'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'
import { lookBack } from '../../utils/replica'

/** The last that ended, whole: what a device takes along for a day away. */
export default defineRoute(async (event) =>
  lookBack(await useWorkshop(event), async (db) => ({ items: await lastEnded(db, LAST_CASTS) })),
)
