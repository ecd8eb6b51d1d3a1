import { pageQuerySchema } from '../../../shared/contracts'
import { listMoulds } from '../../services/shelf/moulds'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) =>
  listMoulds((await useWorkshop(event)).db, readQuery(event, pageQuerySchema)),
)
