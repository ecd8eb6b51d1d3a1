import { normal } from './dice'

export interface ScaleKind {
  divisionG: number
  capacityG: number
  /** σ of its noise, g. */
  noiseG: number
  driftGPerH: number
  /** From a change to within a division, s. */
  settleS: number
}

export const BENCH_SCALE: ScaleKind = {
  divisionG: 1,
  capacityG: 5000,
  noiseG: 0.12,
  driftGPerH: 0.5,
  settleS: 1.2,
}

export interface ScaleShows {
  massG: number | null
  stable: boolean
  tare: boolean
  overload: boolean
}

/** Past its capacity a scale shows this many divisions more (common practice, no source). */
const OVER_DIVISIONS = 9
/** Readings that must agree before it says stable. */
const AGREEING = 4
/** In a draught its noise is this many times as large. */
const DRAUGHT = 40

/** A bench scale on its own: what lies on it, and what it therefore shows. Time is given, chance is passed in. */
export class ScaleModel {
  private loadG = 0
  private felt = 0
  private driftG = 0
  private tareG = 0
  private tareAsked = false
  private readonly flows: { leftG: number; rateGS: number }[] = []
  private readonly shown: number[] = []
  draughty = false

  constructor(
    readonly kind: ScaleKind,
    private readonly dice: () => number,
  ) {}

  /** Puts a mass on, at once or over a time; negative takes it off. */
  add(massG: number, overS = 0): void {
    if (overS <= 0) this.loadG = Math.max(0, this.loadG + massG)
    else this.flows.push({ leftG: massG, rateGS: massG / overS })
  }

  /** Takes everything off; what was still flowing is stopped. */
  clear(): void {
    this.loadG = 0
    this.flows.length = 0
  }

  /** Zeroes as soon as it stands still, as scales do. */
  tare(): void {
    this.tareAsked = true
  }

  /** Zeroed with nothing on it is not zeroed. */
  private get hasTare(): boolean {
    return this.tareG >= this.kind.divisionG
  }

  get isFlowing(): boolean {
    return this.flows.length > 0
  }

  /** @param dtS s since the last step, of at most a few tenths. */
  step(dtS: number): ScaleShows {
    for (const flow of [...this.flows]) {
      const part = Math.abs(flow.rateGS * dtS) < Math.abs(flow.leftG) ? flow.rateGS * dtS : flow.leftG
      flow.leftG -= part
      this.loadG = Math.max(0, this.loadG + part)
      if (Math.abs(flow.leftG) < 1e-9) this.flows.splice(this.flows.indexOf(flow), 1)
    }
    // Within a division of a kilogram after `settleS`.
    this.felt += (this.loadG - this.felt) * (1 - Math.exp((-7 * dtS) / this.kind.settleS))
    this.driftG += (this.kind.driftGPerH * dtS) / 3600
    const noiseG = this.kind.noiseG * (this.draughty ? DRAUGHT : 1) * normal(this.dice)
    const { divisionG, capacityG } = this.kind
    if (this.felt > capacityG + OVER_DIVISIONS * divisionG) {
      this.shown.length = 0
      return { massG: null, stable: false, tare: this.hasTare, overload: true }
    }
    const netG = this.felt + this.driftG + noiseG - this.tareG
    const massG = Number((Math.round(netG / divisionG) * divisionG).toFixed(3)) + 0
    this.shown.push(massG)
    if (this.shown.length > AGREEING) this.shown.shift()
    const spreadG = Math.max(...this.shown) - Math.min(...this.shown)
    const stable = this.shown.length === AGREEING && spreadG <= divisionG && !this.isFlowing
    if (stable && this.tareAsked && Math.abs(this.loadG - this.felt) < divisionG / 2) {
      this.tareAsked = false
      this.tareG = this.felt + this.driftG
      this.shown.length = 0
      return { massG: 0, stable: false, tare: this.hasTare, overload: false }
    }
    return { massG, stable, tare: this.hasTare, overload: false }
  }
}
