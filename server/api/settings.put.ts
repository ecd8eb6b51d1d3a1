import { settingsPutSchema } from '../../shared/contracts'
import { saveSettings } from '../services/workshop'
import { useWorkshop } from '../utils/database'
import { defineRoute, readJson } from '../utils/http'

export default defineRoute(async (event) => {
  const { revision, settings } = await readJson(event, settingsPutSchema)
  return saveSettings((await useWorkshop(event)).db, revision, settings)
})
