import { newId } from '~~/shared/newId'
import { isValid, parseISO } from 'date-fns'
import type { NewEvent } from '~~/shared/pourEvents'

/** What can be put right of an event that was not taken. */
export interface Correction {
  /** Local, as a browser's date field writes it. */
  at: string
  massG: number | undefined
  text: string | undefined
}

/** The event as corrected: another one, for what it says is another. Undefined where it says no time or no mass. */
export function correctedEvent(event: NewEvent, { at, massG, text }: Correction): NewEvent | undefined {
  const day = parseISO(at)
  if (!isValid(day)) return undefined
  let { body } = event
  if ('massG' in body) {
    if (massG === undefined) return undefined
    body = { ...body, massG }
  }
  if (body.type === 'note') {
    if (!text?.trim()) return undefined
    body = { ...body, text }
  }
  return { ...event, id: newId(), occurredAtMs: day.getTime(), body }
}
