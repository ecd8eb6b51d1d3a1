/** What is believed of a factor before anything was seen: σ of ln F, and how much it differs from pour to pour. */
export interface Prior {
  meanLn: number
  sigmaLn: number
  perPourSigmaLn: number
}

/** Observed over predicted, with its own error as σ of its logarithm. */
export interface Observation {
  ratio: number
  sigmaLn: number
}

export interface Learned {
  factor: number
  meanLn: number
  /** σ of ln F itself. */
  sigmaLn: number
  /** How far each observation lies from the rest, in its own σ; beyond 3 ask, do not delete. */
  z: number[]
}

/**
 * A log-normal factor learnt from observations, outliers turned down (weights 5/(4+z²), iterated), never dropped.
 * With no observation it is the prior. Method and worked example: docs/science.md#learning.
 */
export function learnFactor(prior: Prior, observations: readonly Observation[]): Learned {
  const precision0 = 1 / prior.sigmaLn ** 2
  const lnR = observations.map((o) => Math.log(o.ratio))
  const w = observations.map((o) => 1 / (o.sigmaLn ** 2 + prior.perPourSigmaLn ** 2))
  let mean = prior.meanLn
  let precision = precision0
  let u = observations.map(() => 1)
  for (let round = 0; round < 1000; round++) {
    precision = precision0 + u.reduce((sum, ui, i) => sum + ui * w[i]!, 0)
    const next =
      (prior.meanLn * precision0 + u.reduce((sum, ui, i) => sum + ui * w[i]! * lnR[i]!, 0)) / precision
    const moved = Math.abs(next - mean)
    mean = next
    u = lnR.map((ln, i) => Math.min(1, 5 / (4 + (ln - mean) ** 2 * w[i]!)))
    if (moved < 1e-12) break
  }
  return {
    factor: Math.exp(mean),
    meanLn: mean,
    sigmaLn: Math.sqrt(1 / precision),
    z: lnR.map((ln, i) => (ln - mean) * Math.sqrt(w[i]!)),
  }
}

/** σ of ln F for the next pour: what is not known of the factor, and what differs each time. */
export function nextTime(learned: Learned, prior: Prior): number {
  return Math.hypot(learned.sigmaLn, prior.perPourSigmaLn)
}
