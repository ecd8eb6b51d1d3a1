import type { TimeAnswer } from '../../shared/changes'
import { latestSeq } from '../services/changes'
import { useWorkshop } from '../utils/database'
import { defineRoute } from '../utils/http'

export default defineRoute(async (event): Promise<TimeAnswer> => {
  const seq = await latestSeq((await useWorkshop(event)).db)
  return { serverTimeMs: Date.now(), seq }
})
