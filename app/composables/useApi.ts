import { $fetch, FetchError } from 'ofetch'
import type { ApiErrorBody, ErrorCode, FieldError } from '~~/shared/errors'

/** A failed request as data: what the server said, or `unavailable` when it could not be reached. */
export interface ApiFailure {
  code: ErrorCode
  fields: FieldError[]
}

export type ApiResult<T> = { ok: true; value: T } | { ok: false; failure: ApiFailure }

/** One request to the workshop's server. Never throws for an answer or for a lost connection. */
export async function callApi<T>(
  path: string,
  options: { method?: 'GET' | 'POST' | 'PUT'; body?: object; query?: object } = {},
): Promise<ApiResult<T>> {
  try {
    return { ok: true, value: await $fetch<T>(path, { ...options, retry: 0, timeout: 10_000 }) }
  } catch (error) {
    if (!(error instanceof FetchError)) throw error
    const body = error.data as ApiErrorBody | undefined
    return { ok: false, failure: body?.error ?? { code: 'unavailable', fields: [] } }
  }
}
