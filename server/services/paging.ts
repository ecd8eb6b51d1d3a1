import { DomainError } from './domainError'

/** A place in a list that is sorted by several columns: what the last row of a page had in them. */
export type Key = readonly string[]

export function writeKey(key: Key): string {
  return JSON.stringify(key)
}

/** @returns undefined at the list's start. @throws DomainError invalid_input where it is no place in a list. */
export function readKey(after: string, length: number): string[] | undefined {
  if (after === '') return undefined
  try {
    const key: unknown = JSON.parse(after)
    if (Array.isArray(key) && key.length === length && key.every((k) => typeof k === 'string')) return key
  } catch {
    // Falls through: it is none.
  }
  throw new DomainError('invalid_input', [{ path: 'after', message: 'is no place in this list' }])
}

const UUID = /^[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/

/** For keys that end in an id. */
export function requireId(id: string): string {
  if (UUID.test(id)) return id
  throw new DomainError('invalid_input', [{ path: 'after', message: 'is no place in this list' }])
}

/** One row more than asked for tells whether there is another page. */
export function pageOf<Row, T>(
  rows: readonly Row[],
  limit: number,
  itemOf: (row: Row) => T,
  keyOf: (row: Row) => Key,
): { items: T[]; next?: string } {
  const items = rows.slice(0, limit).map(itemOf)
  return rows.length > limit ? { items, next: writeKey(keyOf(rows[limit - 1]!)) } : { items }
}
