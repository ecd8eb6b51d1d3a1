/** Φ(x): chance that a standard normal is below x. Within 7e-7 (Abramowitz & Stegun 7.1.26 has 1.5e-7 on erf). */
export function normalCdf(x: number): number {
  const z = Math.abs(x) / Math.SQRT2
  const t = 1 / (1 + 0.3275911 * z)
  const poly =
    t * (0.254829592 + t * (-0.284496736 + t * (1.421413741 + t * (-1.453152027 + t * 1.061405429))))
  const half = 0.5 * poly * Math.exp(-z * z)
  return x > 0 ? 1 - half : half
}

/** ln Φ(x), also far out, where Φ itself is nothing: Mills' ratio. */
export function lnNormalCdf(x: number): number {
  if (x > -5) return Math.log(normalCdf(x))
  return -0.5 * x * x - Math.log(-x) - 0.5 * Math.log(2 * Math.PI) - Math.log1p(1 / (x * x))
}

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
