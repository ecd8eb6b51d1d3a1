import type { PeopleAnswer } from '../../../shared/people'
import { useConfig } from '../../config'
import { listPeople } from '../../services/people'
import { useWorkshop } from '../../utils/database'
import { defineRoute } from '../../utils/http'

export default defineRoute(async (event): Promise<PeopleAnswer> => {
  const [host] = useConfig().sharedHosts
  return {
    people: await listPeople((await useWorkshop(event)).db),
    address: host === undefined ? null : `https://${host}`,
  }
})
