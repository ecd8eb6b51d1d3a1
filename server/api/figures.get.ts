import { figuresQuerySchema } from '../../shared/figures'
import { figuresOf } from '../services/learnt/figures'
import { useWorkshop } from '../utils/database'
import { defineRoute, readQuery } from '../utils/http'

export default defineRoute(async (event) => {
  const { months } = readQuery(event, figuresQuerySchema)
  return figuresOf((await useWorkshop(event)).db, months)
})
