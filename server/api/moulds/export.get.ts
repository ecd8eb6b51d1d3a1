import { exportMoulds } from '../../services/mouldBundle'
import { useDatabase } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event) => {
  setResponseHeader(event, 'content-disposition', 'attachment; filename="moulds.json"')
  return exportMoulds(useDatabase())
})
