import { tareSchema } from '../../../../shared/devices'
import { devicesById, tellLive } from '../../../services/devices'
import { DomainError } from '../../../services/domainError'
import { useWorkshop } from '../../../utils/database'
import { defineRoute, readDeviceId, readJson } from '../../../utils/http'
import type { LivePayload } from '../../../utils/live'

/** Asks a scale to zero itself, through whichever process it is connected to. It shows by its next reading whether it did. */
export default defineRoute(async (event) => {
  const device = readDeviceId(event)
  const ask = await readJson(event, tareSchema)
  const { id, db } = await useWorkshop(event)
  if ((await devicesById(db, [device])).length === 0) throw new DomainError('not_found')
  const asked: LivePayload['m'] = [{ kind: 'tare', device, ask }]
  await tellLive(db, id, asked)
  return { asked: true }
})
