import { mouldSetSchema } from '../../../shared/moulds'
import { saveMouldSet } from '../../services/mouldSets'
import { useDatabase } from '../../utils/database'
import { defineRoute, readId, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const id = readId(event)
  return saveMouldSet(useDatabase(), id, await readJson(event, mouldSetSchema))
})
