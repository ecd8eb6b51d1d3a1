import { mouldChangeSchema } from '../../../../shared/moulds'
import { changeMould } from '../../../services/moulds'
import { useDatabase } from '../../../utils/database'
import { defineRoute, readId, readJson } from '../../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  const { revision, mould } = await readJson(event, mouldChangeSchema)
  return changeMould(useDatabase(), id, revision, mould)
})
