/** A caller's bug: wrong shape or unit, never a caster's input. Not meant to be caught. */
export class ArgumentError extends Error {
  override name = 'ArgumentError'
}

/** Throws ArgumentError unless every named value is a finite number. */
export function requireFinite(values: Record<string, number>): void {
  for (const [name, value] of Object.entries(values)) {
    if (!Number.isFinite(value)) throw new ArgumentError(`${name} must be a finite number, got ${value}`)
  }
}

/**
 * A domain outcome the caster must hear about. Data, not prose: the interface puts it into words.
 * `error` means the result is refused, `warning` that it is computed but outside what is usual.
 */
export interface Issue<Code extends string = string> {
  code: Code
  severity: 'error' | 'warning'
  path: string
  actual: number
  limit: number
  unit: string
}
