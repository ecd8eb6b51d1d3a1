import { useConfig } from '../config'
import { cameByNetwork } from '../utils/asker'
import { useLogger } from '../utils/logger'

/** The names under which a loopback server is asked. */
const OWN_NAMES = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/

/**
 * At the machine itself there is no login, so a page elsewhere must not reach the workshop by pointing a name of its own
 * at it: a request under any other name than the loopback's is refused, and one from the network under any other than
 * those it is let in by.
 */
export default defineEventHandler((event) => {
  const host = getRequestHeader(event, 'host') ?? ''
  const isOwn = cameByNetwork(event) ? useConfig().sharedHosts.includes(host) : OWN_NAMES.test(host)
  if (isOwn) return
  useLogger().warn({ host }, 'refused a request under a strange name')
  setResponseStatus(event, 421)
  return 'This workshop does not answer to this name.'
})
