import { tareSchema } from '../../../../shared/devices'
import { devicesById } from '../../../services/devices'
import { DomainError } from '../../../services/domainError'
import { askToZero } from '../../../live/deviceDoor'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readDeviceId, readJson } from '../../../utils/http'

/** Asks a scale to zero itself. It shows by its next reading whether it did. */
export default defineRoute(async (event) => {
  const device = readDeviceId(event)
  const ask = await readJson(event, tareSchema)
  const workshop = await useWorkshop(event)
  if ((await devicesById(workshop.db, [device])).length === 0) throw new DomainError('not_found')
  await askToZero(workshop, device, ask)
  return { asked: true }
})
