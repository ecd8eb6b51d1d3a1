import type { BundleJob, ExportRequest } from '~~/shared/bundle'
import { callApi, sendFile, type ApiFailure, type ApiResult } from './api'

/** Gigabytes take their time. */
const UPLOAD_TIMEOUT_MS = 3_600_000
const ASK_EVERY_MS = 400

/** A bundle's work, followed until it stands still; `stop` gives it up. */
export function followBundle(id: string, told: (job: BundleJob) => void): { stop: () => void } {
  let stopped = false
  const ask = async () => {
    while (!stopped) {
      const answer = await callApi<BundleJob>(`/api/bundles/${id}`)
      if (stopped) return
      if (answer.ok) {
        told(answer.value)
        if (answer.value.state !== 'running') return
      } else if (answer.failure.code === 'not_found') {
        // The server was started anew, and knows nothing of it any more.
        told({ id, kind: 'export', state: 'failed', ahead: 0, done: 0, total: 0, failure: 'not_found' })
        return
      }
      await new Promise((later) => setTimeout(later, ASK_EVERY_MS))
    }
  }
  void ask()
  return { stop: () => (stopped = true) }
}

/** How far it is; undefined where nothing is known of it any more. */
export async function bundleNow(id: string): Promise<BundleJob | undefined> {
  const answer = await callApi<BundleJob>(`/api/bundles/${id}`)
  return answer.ok ? answer.value : undefined
}

/** The browser's own download shows how far it is, and can be stopped. */
export function fetchBundle(id: string): void {
  const link = document.createElement('a')
  link.href = `/api/bundles/${id}/file`
  link.download = ''
  link.click()
}

export const beginExport = (request: ExportRequest): Promise<ApiResult<BundleJob>> =>
  callApi<BundleJob>('/api/bundles', { method: 'POST', body: request })
export const beginImport = (file: File): Promise<ApiResult<BundleJob>> =>
  sendFile<BundleJob>('/api/bundles/import', file, { type: 'application/zip', timeoutMs: UPLOAD_TIMEOUT_MS })
export const applyImport = (id: string, clashes: 'keep' | 'take'): Promise<ApiResult<BundleJob>> =>
  callApi<BundleJob>(`/api/bundles/${id}/apply`, { method: 'POST', body: { clashes } })
export async function endBundle(id: string): Promise<ApiFailure | undefined> {
  const answer = await callApi(`/api/bundles/${id}`, { method: 'DELETE' })
  return answer.ok ? undefined : answer.failure
}
