import { FACTOR, type FactorId } from '#core/learn'

/** Shares of what was expected that a mark may stand at. */
const STEPS = [0.02, 0.05, 0.1, 0.2, 0.3] as const

/**
 * A logarithmic axis for ratios about 1: as far as one would believe before anything was seen, or further where a pour lies
 * further; marks where a share can be read off.
 */
export function ratioAxis(factor: FactorId, ratios: readonly number[]): { reachLn: number; ticks: number[] } {
  const reachLn = Math.max(
    1.6 * FACTOR[factor].sigmaLn,
    ...ratios.map((ratio) => 1.1 * Math.abs(Math.log(ratio))),
  )
  const step = STEPS.findLast((s) => -Math.log(1 - s) <= 0.8 * reachLn) ?? STEPS[0]
  return { reachLn, ticks: [1 - step, 1, 1 + step] }
}
