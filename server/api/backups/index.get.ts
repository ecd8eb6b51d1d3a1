import type { BackupsAnswer } from '../../../shared/backups'
import { useConfig } from '../../config'
import { listBackups } from '../../services/backups'
import { defineRoute } from '../../utils/http'
import { replicaState } from '../../utils/replica'

export default defineRoute(async (): Promise<BackupsAnswer> => ({
  ...(await listBackups(useConfig().backupsFolder, Date.now(), process.uptime())),
  replica: replicaState(),
}))
