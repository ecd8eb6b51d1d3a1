import type { ErrorCode, FieldError } from '../../shared/errors'

/** An expected failure. Services throw it and know nothing of HTTP; server/utils/http.ts gives it a status. */
export class DomainError extends Error {
  override name = 'DomainError'
  constructor(
    readonly code: ErrorCode,
    readonly fields: FieldError[] = [],
    /** What is there now, where the caller had seen something older. */
    readonly current?: unknown,
  ) {
    super(code)
  }
}
