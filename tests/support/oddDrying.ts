import { diceOf, normal } from '../../devices/dice'
import {
  dryingDepths,
  dryingTimeS,
  forecastDrying,
  fractionLeftAt,
  timeToFractionS,
  type Air,
  type Weighing,
} from '../../core/drying'
import { curvesFrom } from '../../core/drying/curve'
import type { Share } from './oddBuckets'

const AIRS: Air[] = [
  { tempC: 20, rhPct: 50, speedMS: 0.1 },
  { tempC: 12, rhPct: 75, speedMS: 0.1 },
  { tempC: 22, rhPct: 45, speedMS: 1.5 },
]
const H = 3600
const SCALE_SD_G = 1
/** Share of the free water left, to which a date is told. */
const LEFT = 0.05

/**
 * Pieces that dry at a pace, with a critical share of water and pores of their own, weighed so many times on the way, the
 * last time when about a third of the water is left.
 * @returns how often the 80 % range of the date holds, and how often a sound weighing is asked about.
 */
export function oddDrying(
  pieces: number,
  weighings: number,
  seed: number,
): { band: Share; asked: Share; late: Share } {
  const uniform = diceOf(seed)
  const gauss = () => normal(uniform)
  const found = { band: { held: 0, of: 0 }, asked: { held: 0, of: 0 }, late: { held: 0, of: 0 } }
  for (let piece = 0; piece < pieces; piece++) {
    const air = AIRS[piece % AIRS.length]!
    const input = {
      freeWaterKgM3: 480,
      ...dryingDepths(10 + 40 * uniform(), 'both_faces'),
      air,
    }
    const shape = { critical: Math.exp(0.35 * gauss()), diffusivity: Math.exp(0.35 * gauss()) }
    const speedFactor = Math.exp(0.35 * gauss())
    const curve = curvesFrom({ ...input, speedFactor }, [shape])[0]!
    const [dryG, waterG] = [1630 * (1 + 0.02 * gauss()), 717 * (1 + 0.04 * gauss())]
    const lastS = dryingTimeS(curve, 0.25 + 0.2 * uniform())
    const weighed = Array.from({ length: weighings }, (_, i): Weighing => {
      const timeS = weighings === 1 ? 0.5 * lastS : 1 * H + ((lastS - H) * i) / (weighings - 1)
      return { timeS, massG: dryG + waterG * fractionLeftAt(curve, timeS) + SCALE_SD_G * gauss() }
    })
    const stretch = { fromS: 0, ...input, pace: { meanLn: 0, sigmaLn: 0.35 } }
    const forecast = forecastDrying([stretch], 1630, 717, weighed, SCALE_SD_G)
    const range = timeToFractionS(forecast, LEFT)
    const truthS = dryingTimeS(curve, LEFT)
    found.band.of++
    found.late.of++
    if (range.low <= truthS && truthS <= range.high) found.band.held++
    if (truthS > range.high) found.late.held++
    found.asked.of += forecast.z.length
    found.asked.held += forecast.z.filter((z) => Math.abs(z) > 3).length
  }
  return found
}
