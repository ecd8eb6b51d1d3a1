import { listBowls } from '../../services/cupboard'
import { useDatabase } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async () => listBowls(useDatabase()))
