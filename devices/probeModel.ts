import { heatMix, seriesAt, solveHeat, type HeatRun } from '../core/heat'
import { mixProperties } from '../core/mix'
import { plasterProperties, type PlasterClassId } from '../core/plaster'
import { ageAtMin, halfHydrationOf } from '../core/setting'
import { normal } from './dice'

/** Plaster as it was stirred and poured: a rubber mould's hand piece. */
const STIRRED_S = 120
const POURED_AT_S = 330
const PIECE_MM = 32
const FOLLOWED_S = 12 * 3600

/** The demo's ammonite: its bag sets a little sooner than its class. */
export const DEMO_PIECE = { classId: 'hsgc', consistency: 32, tempC: 18, ageS: 25 * 60, pace: 0.9 } as const

/** Plaster that sets in a mould: the temperature of its core, from the setting and heat model. */
export class SettingPiece {
  private ageS: number
  private readonly run: HeatRun

  /** @param pace factor on its setting times: a bag is its own. @param ageS since its powder met the water. */
  constructor(
    classId: PlasterClassId,
    consistency: number,
    roomC: number,
    mixTempC: number,
    ageS = POURED_AT_S,
    pace = 1,
  ) {
    const plaster = plasterProperties(classId)
    const setting = {
      plaster,
      consistency,
      mixTempC,
      stirS: STIRRED_S,
      stirManner: 'hand' as const,
      restS: POURED_AT_S - STIRRED_S,
      ratioSigmaLn: 0,
    }
    const mix = mixProperties({ plaster, consistency, waterTempC: mixTempC, airFraction: 0.01 })
    this.run = solveHeat({
      mix: heatMix(plaster, consistency, mix),
      piece: {
        shape: 'sphere',
        sizeMm: PIECE_MM,
        walls: [{ material: 'silicone', thicknessMm: 6 }],
        standsOn: 'air',
        top: 'covered',
      },
      around: {
        airTempC: roomC,
        rhPct: 55,
        speedMS: 0.1,
        mouldTempC: roomC,
        groundTempC: roomC,
        sunWM2: 0,
      },
      mixTempC,
      halfHydrationMin: pace * halfHydrationOf(setting),
      pouredAtS: POURED_AT_S,
      ageAtPourMin: ageAtMin(setting, POURED_AT_S),
      untilS: FOLLOWED_S,
    })
    this.ageS = ageS
  }

  get tempC(): number {
    return seriesAt(this.run.timeS, this.run.coreC, this.ageS)
  }

  step(dtS: number): void {
    this.ageS += dtS
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

  /** It has sat in this piece for long, and is as warm. */
  settleIn(piece: SettingPiece): void {
    this.piece = piece
    this.feltC = piece.tempC
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
