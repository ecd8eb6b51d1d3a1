import type { Range } from '../provenance'

/** Φ(x): chance that a standard normal is below x. Within 7e-7 (Abramowitz & Stegun 7.1.26 has 1.5e-7 on erf). */
export function normalCdf(x: number): number {
  const z = Math.abs(x) / Math.SQRT2
  const t = 1 / (1 + 0.3275911 * z)
  const poly =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))))
  const half = 0.5 * poly * Math.exp(-z * z)
  return x > 0 ? 1 - half : half
}

/**
 * ln T(x), T the distribution function of Student's t with 4 degrees of freedom: T(x) = ½ + ¾(u − u³/3) with
 * u = x/√(4 + x²), the far tail by what is left to 1, which that form would lose to rounding. Its tail falls as x⁻⁴: what
 * lies far out is unlikely, and never so unlikely that it could not be.
 */
export function lnStudentCdf(x: number): number {
  const root = Math.sqrt(4 + x * x)
  const left = 4 / (root * (root + Math.abs(x)))
  const tail = 0.75 * left * left * (1 - left / 3)
  return x < 0 ? Math.log(tail) : Math.log1p(-tail)
}

/** ln of Student's density (ν = 4), but for its constant. */
export const lnStudentDensity = (x: number): number => -2.5 * Math.log1p((x * x) / 4)

/** x with Φ(x) = p, by halving: p in (0, 1). */
export function normalQuantile(p: number): number {
  let [low, high] = [-8, 8]
  for (let i = 0; i < 60; i++) {
    const mid = (low + high) / 2
    if (normalCdf(mid) < p) low = mid
    else high = mid
  }
  return (low + high) / 2
}

/** No forecast here is surer than this of anything, either way (estimate). */
const SUREST = 0.97

/**
 * Chance that what is known as an 80 % range has come by a moment: log-normal on either side of its middle.
 * @param at in the range's own unit. @returns 0.03–0.97.
 */
export function chanceBy({ low, mid, high }: Range, at: number): number {
  if (at <= 0) return 1 - SUREST
  const sigmaLn = Math.log(at < mid ? mid / low : high / mid) / 1.28
  const chance = sigmaLn > 0 ? normalCdf(Math.log(at / mid) / sigmaLn) : at < mid ? 0 : 1
  return Math.min(SUREST, Math.max(1 - SUREST, chance))
}
