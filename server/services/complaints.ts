import { ZodError } from 'zod'

/** What is wrong with a record, in a line each. */
export function complaints(error: unknown): string[] {
  if (error instanceof ZodError)
    return error.issues.slice(0, 10).map((i) => `${i.path.join('.') || 'record'}: ${i.message}`)
  return [error instanceof Error ? error.message : String(error)]
}
