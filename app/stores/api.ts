import { ref } from 'vue'
import { $fetch, FetchError } from 'ofetch'
import type { Page } from '~~/shared/records'
import { WINDOW_HEADER } from '~~/shared/place'
import type { ApiErrorBody, ErrorCode, FieldError } from '~~/shared/errors'
import { lostPlace, workshopHere } from './place'

/** A failed request as data: what the server said, or `unavailable` when it could not be reached. */
export interface ApiFailure {
  /** `rehearsal`: it was not even asked, for nothing is kept here. `not_kept`: nobody answered, and the browser has no room. */
  code: ErrorCode | 'rehearsal' | 'not_kept'
  fields: FieldError[]
  /** What is there now, where the caller had seen something older. */
  current?: unknown
}

/** The workshop is not there to take it, or this window is not where it was: nothing is wrong with what was sent. */
export const isAway = ({ code }: ApiFailure): boolean =>
  ['unavailable', 'disk_full', 'foreign_origin', 'elsewhere', 'no_workshop', 'sign_in'].includes(code)

export type ApiResult<T> = { ok: true; value: T } | { ok: false; failure: ApiFailure }

let onlyReads = false
/** From here on this window changes nothing in the workshop, whoever asks. For the plugin that hands in the bench. */
export const onlyRead = () => {
  onlyReads = true
}

const HEALTH = '/api/health'
/** An answer from these says nothing of whether one is let in. */
const TOLD_TO_ANYBODY = [HEALTH, '/api/held']

/** The workshop's disk took nothing when this window last asked it to keep something. */
export const isDiskFull = ref(false)

/** Where the disk was full, whether it still is. */
export async function lookAtDisk(): Promise<void> {
  if (isDiskFull.value) await callApi(HEALTH)
}

/** One request to the workshop's server. Never throws for an answer or for a lost connection. */
export async function callApi<T>(
  path: string,
  options: {
    method?: 'GET' | 'POST' | 'PUT' | 'DELETE'
    body?: object
    query?: object
    headers?: Record<string, string>
    timeout?: number
  } = {},
): Promise<ApiResult<T>> {
  if (onlyReads && options.method !== undefined && options.method !== 'GET')
    return { ok: false, failure: { code: 'rehearsal', fields: [] } }
  try {
    const headers = { ...options.headers, [WINDOW_HEADER]: workshopHere }
    const value = await $fetch<T>(path, { timeout: 10_000, ...options, headers, retry: 0 })
    const wasKept = options.method !== undefined && options.method !== 'GET'
    if (wasKept || path === HEALTH) isDiskFull.value = false
    if (lostPlace.value === 'sign_in' && !TOLD_TO_ANYBODY.includes(path)) lostPlace.value = undefined
    return { ok: true, value }
  } catch (error) {
    if (!(error instanceof FetchError)) throw error
    const body = error.data as ApiErrorBody | undefined
    const code = body?.error?.code
    if (code === 'disk_full') isDiskFull.value = true
    if (code === 'elsewhere' || code === 'no_workshop' || code === 'sign_in') lostPlace.value = code
    return { ok: false, failure: body?.error ?? { code: 'unavailable', fields: [] } }
  }
}

/** Sends a file as it is; large ones take their time. */
export function sendFile<T>(
  path: string,
  file: File,
  { query, type = file.type, timeoutMs }: { query?: object; type?: string; timeoutMs: number },
): Promise<ApiResult<T>> {
  return callApi<T>(path, {
    method: 'POST',
    body: file,
    query,
    headers: { 'content-type': type },
    timeout: timeoutMs,
  })
}

/** Every item of a paged list, page by page. */
export async function callAllPages<T>(path: string, query: object = {}): Promise<ApiResult<T[]>> {
  const items: T[] = []
  for (let after = ''; ;) {
    const answer = await callApi<Page<T>>(path, { query: { ...query, limit: 100, after } })
    if (!answer.ok) return answer
    items.push(...answer.value.items)
    if (answer.value.next === undefined) return { ok: true, value: items }
    after = answer.value.next
  }
}
