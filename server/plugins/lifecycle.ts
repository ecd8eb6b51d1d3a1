import { closeDatabase } from '../utils/database'
import { closeDeviceDoor, openDeviceDoor } from '../live/deviceDoor'
import { stopPruning } from '../live/feeds'
import { stopListening } from '../live/listening'
import { closeStreams } from '../live/streams'
import { closeReplica, openReplica } from '../utils/replica'
import { flushLog, logConsole, useLogger } from '../utils/logger'

export default defineNitroPlugin((nitro) => {
  const onSignal = () => closeStreams()
  process.once('SIGTERM', onSignal)
  process.once('SIGINT', onSignal)
  nitro.hooks.hook('close', async () => {
    closeStreams()
    await closeDeviceDoor()
    stopPruning()
    await stopListening()
    await closeReplica()
    await closeDatabase()
    useLogger().info('stopped')
    await flushLog()
  })
  logConsole()
  void openDeviceDoor()
  openReplica()
  useLogger().info('started')
})
