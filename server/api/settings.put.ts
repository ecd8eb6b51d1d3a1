import { settingsSchema } from '../../shared/contracts'
import { saveSettings } from '../services/workshop'
import { useDatabase } from '../utils/database'
import { defineRoute, readJson } from '../utils/http'

export default defineRoute(async (event) =>
  saveSettings(useDatabase(), await readJson(event, settingsSchema)),
)
