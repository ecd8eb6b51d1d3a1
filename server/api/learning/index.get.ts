import { learningQuerySchema } from '../../../shared/learning'
import { learningOf } from '../../services/learnt/learning'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readQuery } from '../../utils/http'

export default defineRoute(async (event) => {
  const { subject } = readQuery(event, learningQuerySchema)
  return learningOf((await useWorkshop(event)).db, subject)
})
