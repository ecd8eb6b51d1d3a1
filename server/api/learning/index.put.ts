import { learnChoicePutSchema } from '../../../shared/learning'
import { chooseLearning } from '../../services/learnt/learning'
import { useWorkshop } from '../../utils/database'
import { defineRoute, readJson } from '../../utils/http'

export default defineRoute(async (event) => {
  const { subject, factor, choice } = await readJson(event, learnChoicePutSchema)
  return chooseLearning((await useWorkshop(event)).db, subject, factor, choice)
})
