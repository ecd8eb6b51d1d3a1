/** Where a number came from, strongest first. Shown to the caster on demand. */
export type Provenance =
  | { kind: 'measured' }
  | { kind: 'label' }
  | { kind: 'calibrated'; pours: number }
  | { kind: 'spoon_tests'; tests: number }
  | { kind: 'class_default'; source: string }
  | { kind: 'common_practice' }
  | { kind: 'model'; source: string }

const STRENGTH: Provenance['kind'][] = [
  'measured',
  'label',
  'calibrated',
  'spoon_tests',
  'model',
  'class_default',
  'common_practice',
]

/** A sum is no better founded than the weakest of what went into it. */
export function weakestProvenance(provenances: readonly Provenance[]): Provenance {
  return provenances.reduce((a, b) => (STRENGTH.indexOf(b.kind) > STRENGTH.indexOf(a.kind) ? b : a))
}

/** A value with its believable range and its origin. `low` and `high` are omitted where no range is known. */
export interface Sourced {
  value: number
  low?: number
  high?: number
  provenance: Provenance
}

/** A forecast: the middle value with an 80 % range. */
export interface Range {
  low: number
  mid: number
  high: number
}

/** The log-normal 80 % range around `mid` when ln(value) has standard deviation `sigmaLn`. */
export function logNormalRange(mid: number, sigmaLn: number): Range {
  const spread = Math.exp(1.28 * sigmaLn)
  return { low: mid / spread, mid, high: mid * spread }
}
