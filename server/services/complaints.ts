import { ZodError } from 'zod'
import { isUnreadableCard, type UnreadableCard } from '../../shared/records'
import { DomainError } from './domainError'

/** What is wrong with a record, in a line each. */
export function complaints(error: unknown): string[] {
  if (error instanceof ZodError)
    return error.issues.slice(0, 10).map((i) => `${i.path.join('.') || 'record'}: ${i.message}`)
  return [error instanceof Error ? error.message : String(error)]
}

/** A row as it is read, or as itself where it cannot be: one bad row takes no list down. */
export function readRow<T extends object>(
  row: { id: string; name: string },
  read: () => T,
): T | UnreadableCard {
  try {
    return read()
  } catch (error) {
    return { id: row.id, name: row.name, unreadable: complaints(error), raw: row }
  }
}

/** For where one card alone is asked for. */
export function readable<T extends object>(card: T | UnreadableCard): T {
  if (isUnreadableCard(card)) throw new DomainError('record_unreadable')
  return card as T
}
