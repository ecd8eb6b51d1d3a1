import type { FieldError } from '~~/shared/errors'
import type { ApiFailure } from '~/stores/api'

export const ERROR_WORDS: Record<ApiFailure['code'], string> = {
  rehearsal: 'This is a rehearsal: nothing is kept.',
  not_kept:
    'The workshop does not answer, and this browser has no room to keep it meanwhile. What you typed still stands here.',
  invalid_input: 'Something in it is out of range.',
  invalid_json: 'The message could not be read.',
  wrong_content_type: 'The message could not be read.',
  payload_too_large: 'That is too much at once.',
  not_found: 'That is not here (any more).',
  method_not_allowed: 'That cannot be done here.',
  foreign_origin: 'Refused: the request came from another site.',
  no_workshop: 'This workshop is not on this server (any more).',
  elsewhere: 'This browser has gone to another workshop in another window. Nothing was changed here.',
  sign_in: 'This device is not let in (any more). Ask at the desk for a code.',
  not_allowed: 'You may look at this here, not change it. Ask whoever keeps the workshop.',
  code_spent: 'This code has been used, or is older than five minutes. Ask at the desk for another.',
  wrong_password: 'This name and this password do not go together.',
  too_many_attempts: 'Too many attempts. Wait a little before the next.',
  name_taken: 'Somebody here has this name already.',
  last_keeper: 'Nobody would keep the workshop then. Make somebody else its keeper first.',
  refused_by_keeper:
    'Whoever keeps the workshop did not take this: it was recorded after this device had been put out.',
  too_many_devices: 'There are as many keys here as a workshop can have. Take one back first.',
  too_many_people: 'There are as many people here as a workshop can have. Put somebody out first.',
  too_many_streams: 'Too many windows are open on this workshop. Close some, then reload this one.',
  event_id_conflict: 'This was already recorded differently.',
  pour_id_conflict: 'This pour exists already, with another plan.',
  not_a_picture: 'This file is not a picture that can be read here. JPEG, PNG, WebP, GIF, TIFF and AVIF can.',
  photo_too_large: 'This photo is larger than 25 MB. Send a smaller one.',
  too_many_photos: 'A mould keeps 24 photos at most. Remove one first.',
  card_id_conflict: 'This exists already, described differently.',
  stale_card:
    'Somebody else changed this meanwhile. What you typed is still here: keep it once more to put it in place of theirs.',
  in_use: 'There are bags of it: throw those away first.',
  stale_plan:
    'Somebody else changed this plan meanwhile. What you typed is still here: keep it once more to put it in place of theirs.',
  plan_locked: 'This pour has been weighed out: its plan stands now.',
  record_unreadable: 'This record cannot be read. It is kept as it is; see it under Casts.',
  unknown_event: 'There is nothing to take back.',
  cannot_void_void: 'An undo cannot be undone; do the step again.',
  time_in_future: 'This device’s clock runs ahead of the workshop’s. Set it right, then try again.',
  too_many_jobs: 'Several files are being written or read just now. Try again when one of them is done.',
  no_room: 'The workshop’s disk has no room for a file that large. Make room there, then try again.',
  disk_full:
    'The disk that the workshop is kept on is full. Make room there; what you recorded is kept here and goes by itself then.',
  unavailable: 'The workshop’s database does not answer just now. Nothing is lost; trying again.',
  internal: 'Something went wrong on our side. It has been written to the log.',
}

/** What went wrong with a request, and at which fields. */
export function failureWords({
  code,
  fields,
}: {
  code: ApiFailure['code']
  fields: readonly FieldError[]
}): string {
  return `${ERROR_WORDS[code]} ${fields.map((f) => `${f.path}: ${f.message}`).join('; ')}`.trim()
}
