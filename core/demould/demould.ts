import type { MouldKind } from '../mould'
import type { Range } from '../provenance'
import { timeToHydrationS, type SettingForecast, type SettingInput } from '../setting'

interface DemouldRule {
  /** Hydration degree the piece must have reached. */
  alpha: number
  /** Never sooner than this, min from the pour's start of setting (common practice, no source). */
  floorMin: number
}

/** What each kind of mould asks of the piece before it lets go (docs/science.md#demould). */
export const DEMOULD_RULES: Readonly<Record<MouldKind, DemouldRule>> = {
  silicone: { alpha: 0.9, floorMin: 30 },
  rigid_plastic: { alpha: 0.95, floorMin: 30 },
  plaster_piece: { alpha: 0.95, floorMin: 40 },
  box: { alpha: 0.95, floorMin: 30 },
  latex: { alpha: 0.98, floorMin: 120 },
  waste_clay: { alpha: 0.98, floorMin: 60 },
  alginate: { alpha: 0.98, floorMin: 180 },
  impression_tray: { alpha: 0.95, floorMin: 40 },
  shell: { alpha: 0.9, floorMin: 30 },
  ground: { alpha: 0.98, floorMin: 30 },
}

export interface DemouldForecast {
  /** When the piece is strong enough, s since mid-sprinkle, with its range. */
  strongEnoughS: Range
  /** When to take it out, s since mid-sprinkle: a quarter longer than the middle forecast, never under the floor. */
  recommendedS: number
  floorS: number
  /** The floor, not the chemistry, sets the time. */
  heldByFloor: boolean
}

/**
 * When the piece may leave its mould, from hydration alone. Heat ("past the core peak") is not modelled here: touch and
 * warmth are asked for before it is taken out.
 */
export function forecastDemould(
  input: SettingInput,
  setting: SettingForecast,
  kind: MouldKind,
): DemouldForecast {
  const rule = DEMOULD_RULES[kind]
  const strongEnoughS = timeToHydrationS(input, rule.alpha, setting.sigmaLn)
  const floorS = rule.floorMin * 60
  const patientS = 1.25 * strongEnoughS.mid
  return {
    strongEnoughS,
    recommendedS: Math.max(patientS, floorS),
    floorS,
    heldByFloor: floorS > patientS,
  }
}
