import { useConfig } from '../config'
import { cameByNetwork, connectedFrom } from '../utils/asker'
import { useLogger } from '../utils/logger'

/** The names under which a loopback server is asked. */
const OWN_NAMES = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/
const HEALTH = '/api/health'
/** A year: whoever was here once asks by https alone. */
const HSTS = 'max-age=31536000'

/**
 * At the machine itself there is no login, so a page elsewhere must not reach the workshop by pointing a name of its own
 * at it: a request under any other name than the loopback's is refused, and one from the network under any other than
 * those it is let in by. Behind a proxy nobody else is answered, but for whether all is well.
 */
export default defineEventHandler((event) => {
  const host = getRequestHeader(event, 'host') ?? ''
  const { proxies, sharedHosts } = useConfig()
  if (proxies) setResponseHeader(event, 'strict-transport-security', HSTS)
  const isByProxy = !proxies || proxies.includes(connectedFrom(event))
  const isOwn = cameByNetwork(event) ? sharedHosts.includes(host) : OWN_NAMES.test(host)
  if (isOwn && isByProxy) return
  if (proxies && OWN_NAMES.test(host) && event.path === HEALTH) return
  useLogger().warn({ host }, 'refused a request under a strange name')
  setResponseStatus(event, 421)
  return 'This workshop does not answer to this name.'
})
