import { DomainError } from '../services/domainError'
import { PATHS } from '../utils/apiPaths'
import { defineRoute } from '../utils/http'

const KNOWN = PATHS.map((path) => new RegExp(`^${path.replaceAll(/:\w+/g, '[^/]+')}$`))

/** What no route answers: said as such, never with the application's page, which would look like a yes. */
export default defineRoute(async (event) => {
  const path = event.path.replace(/[?#].*$/, '').replace(/\/$/, '')
  throw new DomainError(KNOWN.some((k) => k.test(path)) ? 'method_not_allowed' : 'not_found')
})
