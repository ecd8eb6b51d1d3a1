import type { PlasterProperties } from '../core/plaster'
import { effectiveConsistency, hydration, mixingMultiplier, settingRate } from '../core/setting'
import { normal } from './dice'

/** Heat of hydration, J per g of powder, and heat capacities, J/(g·K): docs/science.md. */
const HEAT_J_G = 130
const CP_WATER = 4.18
const CP_POWDER = 0.83
/** A piece of a litre loses its warmth in about this long (estimate, no source). */
const COOLING_S = 40 * 60

/** Plaster that sets: its temperature from the setting model, losing warmth to the room as one lump. */
export class SettingPiece {
  private ageMin = 0
  private done = 0

  constructor(
    private readonly plaster: Pick<
      PlasterProperties,
      | 'halfHydrationMin'
      | 'referenceConsistency'
      | 'fillerRatio'
      | 'fillerDensityKgM3'
      | 'particleDensityKgM3'
    >,
    private readonly consistency: number,
    private readonly roomC: number,
    public tempC: number,
  ) {}

  step(dtS: number): void {
    const relative = effectiveConsistency(this.consistency, this.plaster) / this.plaster.referenceConsistency
    const halfMin = this.plaster.halfHydrationMin * relative ** 1.6 * mixingMultiplier(120, 'hand')
    this.ageMin += (settingRate(this.tempC) * dtS) / 60
    const done = hydration(this.ageMin, halfMin)
    const perGram = CP_POWDER + (this.consistency / 100) * CP_WATER + this.plaster.fillerRatio * 0.75
    this.tempC += ((done - this.done) * HEAT_J_G) / perGram - ((this.tempC - this.roomC) * dtS) / COOLING_S
    this.done = done
  }
}

export interface ProbeKind {
  /** To 63 % of a step, s. */
  lagS: number
  noiseC: number
  /** It reads this much too high. */
  offsetC: number
}

export const PROBE: ProbeKind = { lagS: 8, noiseC: 0.03, offsetC: 0 }

/** One socket of a thermometer: what it sits in, and what it therefore shows. */
export class ProbeModel {
  private feltC: number
  /** What it sits in; nothing but the room where there is none. */
  piece: SettingPiece | undefined
  dead = false

  constructor(
    readonly kind: ProbeKind,
    readonly roomC: number,
    private readonly dice: () => number,
  ) {
    this.feltC = roomC
  }

  step(dtS: number): number | null {
    this.piece?.step(dtS)
    const trueC = this.piece?.tempC ?? this.roomC
    this.feltC += (trueC - this.feltC) * (1 - Math.exp(-dtS / this.kind.lagS))
    if (this.dead) return null
    const readC = this.feltC + this.kind.offsetC + this.kind.noiseC * normal(this.dice)
    return Math.round(readC * 10) / 10
  }
}
