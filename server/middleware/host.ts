import { useLogger } from '../utils/logger'

/** The names under which a loopback server is asked. */
const OWN_NAMES = /^(127\.0\.0\.1|localhost|\[::1\])(:\d+)?$/

/**
 * There is no login, so a page elsewhere must not reach the workshop by pointing a name of its own at this machine:
 * a request under any other name than the loopback's is refused.
 */
export default defineEventHandler((event) => {
  const host = getRequestHeader(event, 'host') ?? ''
  if (OWN_NAMES.test(host)) return
  useLogger().warn({ host }, 'refused a request under a strange name')
  setResponseStatus(event, 421)
  return 'This workshop answers on its own machine only.'
})
