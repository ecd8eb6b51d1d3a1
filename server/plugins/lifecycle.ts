import { closeDatabase } from '../utils/database'
import { closeDeviceHub, closeStreams, openDeviceHub, stopChangeFeeds } from '../utils/live'
import { flushLog, logConsole, useLogger } from '../utils/logger'

export default defineNitroPlugin((nitro) => {
  const onSignal = () => closeStreams()
  process.once('SIGTERM', onSignal)
  process.once('SIGINT', onSignal)
  nitro.hooks.hook('close', async () => {
    closeStreams()
    await closeDeviceHub()
    await stopChangeFeeds()
    await closeDatabase()
    useLogger().info('stopped')
    await flushLog()
  })
  logConsole()
  void openDeviceHub()
  useLogger().info('started')
})
