import { figuresQuerySchema, type Figures } from '../../shared/figures'
import { figuresOf } from '../services/learnt/figures'
import { lookThrough } from '../services/learnt/learning'
import { useWorkshop } from '../utils/database'
import { defineRoute, readQuery } from '../utils/http'
import { lookBack } from '../utils/replica'

export default defineRoute(async (event): Promise<Figures> => {
  const { months } = readQuery(event, figuresQuerySchema)
  const workshop = await useWorkshop(event)
  const pending = await lookThrough(workshop.db, 'faults')
  return { ...(await lookBack(workshop, (db) => figuresOf(db, months))), pending }
})
