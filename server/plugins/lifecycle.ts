import { closeDatabase } from '../utils/database'
import { closeStreams, stopChangeFeeds } from '../utils/live'
import { useLogger } from '../utils/logger'

export default defineNitroPlugin((nitro) => {
  const onSignal = () => closeStreams()
  process.once('SIGTERM', onSignal)
  process.once('SIGINT', onSignal)
  nitro.hooks.hook('close', async () => {
    closeStreams()
    await stopChangeFeeds()
    await closeDatabase()
    useLogger().info('stopped')
  })
  useLogger().info('started')
})
