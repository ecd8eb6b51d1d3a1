/** Every code the server answers with. The interface turns them into words (app/parts/words/errors.ts). */
export const ERROR_CODES = [
  'invalid_input',
  'invalid_json',
  'wrong_content_type',
  'payload_too_large',
  'not_found',
  'method_not_allowed',
  'foreign_origin',
  'no_workshop',
  'elsewhere',
  'sign_in',
  'not_allowed',
  'code_spent',
  'wrong_password',
  'too_many_attempts',
  'name_taken',
  'too_many_people',
  'too_many_devices',
  'refused_by_keeper',
  'last_keeper',
  'event_id_conflict',
  'pour_id_conflict',
  'card_id_conflict',
  'stale_plan',
  'stale_card',
  'in_use',
  'plan_locked',
  'record_unreadable',
  'unknown_event',
  'cannot_void_void',
  'too_many_streams',
  'time_in_future',
  'not_a_picture',
  'photo_too_large',
  'too_many_photos',
  'too_many_jobs',
  'no_room',
  'disk_full',
  'unavailable',
  'internal',
] as const
export type ErrorCode = (typeof ERROR_CODES)[number]

export interface FieldError {
  /** Path of the field, dotted, e.g. `plan.mould.cavityMl`. */
  path: string
  message: string
}

/** The body of every answer that is not a success. */
export interface ApiErrorBody {
  /** `current`: what is there now, where the caller had seen something older. */
  error: { code: ErrorCode; fields: FieldError[]; current?: unknown }
}
