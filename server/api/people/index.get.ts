import type { PeopleAnswer } from '../../../shared/people'
import { useConfig } from '../../config'
import { listPeople, looseNames } from '../../services/people'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event): Promise<PeopleAnswer> => {
  const [host] = useConfig().sharedHosts
  const { db } = await useWorkshop(event)
  return {
    people: await listPeople(db),
    looseNames: await looseNames(db),
    address: host === undefined ? null : `https://${host}`,
  }
})
