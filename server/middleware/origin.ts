import type { ApiErrorBody } from '../../shared/errors'
import { cameByNetwork } from '../utils/asker'
import { useLogger } from '../utils/logger'

const READS = new Set(['GET', 'HEAD'])

/**
 * Answers are for pages of this server alone, and so is what writes or is heavy: a browser says where a request comes
 * from, and one from another site is refused. What is no browser says nothing, and is let in at the machine itself; from the
 * network nothing is written without it.
 */
export default defineEventHandler((event) => {
  if (!event.path.startsWith('/api/')) return
  setResponseHeader(event, 'cross-origin-resource-policy', 'same-origin')
  const site = getRequestHeader(event, 'sec-fetch-site')
  const origin = getRequestHeader(event, 'origin')
  const foreignSite = site !== undefined && site !== 'same-origin' && site !== 'none'
  const foreignOrigin = origin !== undefined && hostOf(origin) !== getRequestHeader(event, 'host')
  const isUnsaid =
    cameByNetwork(event) && !READS.has(event.method) && site === undefined && origin === undefined
  if (!foreignSite && !foreignOrigin && !isUnsaid) return
  useLogger().warn({ site, origin, path: event.path }, 'refused a request from another site')
  setResponseStatus(event, 403)
  return { error: { code: 'foreign_origin', fields: [] } } satisfies ApiErrorBody
})

/** @returns undefined where it names none (`null`, or no address at all). */
function hostOf(origin: string): string | undefined {
  try {
    return new URL(origin).host
  } catch {
    return undefined
  }
}
