import { defineRoute } from '../utils/http'

/** The workshop's one clock: every device sets its own by this, so that two tablets agree to the second. */
export default defineRoute(async () => ({ serverTimeMs: Date.now() }))
