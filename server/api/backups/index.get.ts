import { useConfig } from '../../config'
import { listBackups } from '../../services/backups'
import { defineRoute } from '../../utils/http'

export default defineRoute(() => listBackups(useConfig().backupsFolder, Date.now(), process.uptime()))
