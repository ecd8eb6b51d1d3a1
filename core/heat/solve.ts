import { massTransferMS, convectionWM2K, saturatedVapourKgM3 } from '../drying'
import { ArgumentError } from '../errors'
import { INDUCTION_SHARE, settingRate } from '../setting'
import { RADIATION_W_M2K, layoutOf, type Layout } from './layout'
import { CP_LOSS, type HeatMix } from './mix'
import type { HeatPiece, HeatSurroundings } from './piece'

/** A setting face gives off less vapour than open water (estimate). */
const OPEN_FACE_FACTOR = 0.7
/** Under a bench. */
const UNDER_BENCH_W_M2K = 8
const COARSE_STEPS = 4
/** A peak is known to be one once it is this far behind. */
const PAST_PEAK_K = 0.3
/** What changes by less in an hour, so long after it was warmest, does not get cool any more: in the sun, beside a stove. */
const STEADY_K_H = 0.2
const STEADY_AFTER_S = 3600

export interface HeatInput {
  mix: HeatMix
  piece: HeatPiece
  around: HeatSurroundings
  mixTempC: number
  /** Equivalent age at half hydration, min at 20 °C, with everything that hurries or holds it. */
  halfHydrationMin: number
  /** When it is in the mould, s since mid-sprinkle, and how old it is by then, min at 20 °C. */
  pouredAtS: number
  ageAtPourMin: number
  /** How long to follow it, s since mid-sprinkle. */
  untilS: number
  /** Taken elsewhere at a time, s since mid-sprinkle: mould and ground under it stay, what is about them changes. */
  later?: { fromS: number; around: HeatSurroundings }
}

export interface HeatOptions {
  stepS?: number
  castCells?: number
  /** Ends once the slowest place is this far and, unless it says otherwise, the core is past its peak. */
  untilAlpha?: number
  pastPeak?: boolean
  /** But not before this, s since mid-sprinkle. */
  atLeastS?: number
  /** Nor, where its surface has once been as warm, before that is cool again, or changes no more. */
  untilCool?: { warmFromC: number; coolBelowC: number } | undefined
  /** Keeps temperature and hydration of each cell, too. */
  depths?: boolean
}

/** Within 2 s and .1 K of a run four times as fine (tests). */
export const HEAT_DEFAULTS = { stepS: 20, castCells: 12 } as const

/**
 * A piece from the pour on. Plain data; all series have one entry a step, the first at the pour.
 * Surface: the open face, else where cast and mould meet.
 */
export interface HeatRun {
  timeS: Float64Array
  coreC: Float64Array
  surfaceC: Float64Array
  meanAlpha: Float64Array
  /** Of the place that is furthest behind. */
  slowAlpha: Float64Array
  /** Where it was hottest of all, from the open face or the centre outwards, 0–1. */
  hottestAt: number
  /** Of each cast cell in turn, `castCells` to a step, from the open face or the centre outwards; empty unless asked for. */
  alpha: Float32Array
  tempC: Float32Array
  castCells: number
  /** Heat taken up less heat given and received, over heat given: how well the books balance. */
  closure: number
}

/** r(T) every 0.1 K from −10 to 98 °C. */
const RATE_FROM_C = -10
const RATE_PER_K = 10
const RATES = Float64Array.from({ length: 108 * RATE_PER_K + 2 }, (_, i) =>
  settingRate(RATE_FROM_C + i / RATE_PER_K),
)
function rateAt(tempC: number): number {
  const x = (tempC - RATE_FROM_C) * RATE_PER_K
  if (x <= 0 || x >= RATES.length - 1) return 0
  const i = x | 0
  return RATES[i]! + (x - i) * (RATES[i + 1]! - RATES[i]!)
}

/** Saturated vapour and its slope, kg/m³ and kg/(m³ K). */
function vapourAt(tempC: number): [number, number] {
  const vapour = saturatedVapourKgM3(tempC)
  return [vapour, vapour * ((17.625 * 243.04) / (tempC + 243.04) ** 2 - 1 / (tempC + 273.15))]
}

/**
 * Heat flux out of a wet open face as H·Ts − B, W/m², tangent at the last surface temperature: convection, radiation,
 * evaporation, less the sun.
 */
function openFace(around: HeatSurroundings, lastC: number): [slope: number, constant: number] {
  const h = convectionWM2K(around.speedMS) + RADIATION_W_M2K
  const hm = OPEN_FACE_FACTOR * massTransferMS(around.speedMS)
  const inAir = (around.rhPct / 100) * saturatedVapourKgM3(around.airTempC)
  const [vapour, perK] = vapourAt(lastC)
  const latent = 2.501e6 - 2361 * lastC
  const evaporation = latent * hm * (vapour - inAir)
  const slope = latent * hm * perK - 2361 * hm * (vapour - inAir)
  return [h + slope, h * around.airTempC + around.sunWM2 - evaporation + slope * lastC]
}

/**
 * Temperature and hydration of a piece in its mould: implicit finite volumes on one dimension, coupled to the
 * equivalent-age kinetics cell by cell. Each step: ages by r(T), hydration exactly from the age, its heat as a source,
 * capacity at the new hydration, backward Euler: unconditionally stable, and enthalpy is kept to rounding.
 * Equations, constants, proofs: docs/science.md#heat. Valid for mixes of 2–40 °C and pieces of 3–200 mm.
 * @throws ArgumentError on sizes or times that are not positive, or freezing surroundings.
 */
export function solveHeat(input: HeatInput, options: HeatOptions = {}): HeatRun {
  const { mix, piece, around, halfHydrationMin, pouredAtS, untilS } = input
  const {
    stepS,
    castCells,
    untilAlpha = Infinity,
    atLeastS = 0,
    untilCool,
    pastPeak = true,
    depths = false,
  } = { ...HEAT_DEFAULTS, ...options }
  if (
    !(piece.sizeMm > 0 && halfHydrationMin > 0 && stepS > 0) ||
    piece.walls.some((w) => !(w.thicknessMm > 0))
  )
    throw new ArgumentError(`heat input out of range: ${JSON.stringify(input)}`)
  const layout = layoutOf(piece, around, castCells, mix.conductivityWMK, input.mixTempC)
  return march(
    input,
    layout,
    { stepS, untilAlpha, atLeastS, untilCool, pastPeak, depths },
    Math.max(stepS, untilS - pouredAtS),
  )
}

function march(
  input: HeatInput,
  layout: Layout,
  {
    stepS,
    untilAlpha,
    atLeastS,
    untilCool,
    pastPeak,
    depths,
  }: Required<Omit<HeatOptions, 'castCells' | 'untilCool'>> & Pick<HeatOptions, 'untilCool'>,
  forS: number,
): HeatRun {
  const { mix, halfHydrationMin, pouredAtS, later } = input
  let { around } = input
  const { cells: n, castCells: m, volume, conductance } = layout
  const inductionMin = INDUCTION_SHARE * halfHydrationMin
  const perMin = 1 / (halfHydrationMin - inductionMin)
  // Once it has set and only cools, longer steps say the same.
  const fineS = Math.max(0, 60 * 2.5 * halfHydrationMin + 1800 - pouredAtS)
  const fineSteps = Math.ceil(Math.min(forS, fineS) / stepS)
  const steps = fineSteps + Math.ceil(Math.max(0, forS - fineSteps * stepS) / (stepS * COARSE_STEPS))
  const [timeS, coreC, surfaceC, meanAlpha, slowAlpha] = Array.from(
    { length: 5 },
    () => new Float64Array(steps + 1),
  ) as [Float64Array, Float64Array, Float64Array, Float64Array, Float64Array]
  const alphas = new Float32Array(depths ? (steps + 1) * m : 0)
  const temps = new Float32Array(depths ? (steps + 1) * m : 0)
  const temp = Float64Array.from(layout.startC)
  const age = new Float64Array(m).fill(input.ageAtPourMin)
  const alpha = new Float64Array(m)
  const capacity = Float64Array.from(layout.capacity)
  const upper = new Float64Array(n)
  const right = new Float64Array(n)
  const castVolume = volume.subarray(0, m).reduce((sum, v) => sum + v, 0)
  const isBench = input.piece.standsOn === 'bench'
  const under = () => {
    const farH = isBench ? UNDER_BENCH_W_M2K : convectionWM2K(around.speedMS) + RADIATION_W_M2K
    // From the last cell's middle to the air or to the ground that stays as it is.
    return layout.far === 'fixed'
      ? { underC: around.groundTempC, farG: layout.farHalf }
      : {
          underC: around.airTempC,
          farG: (layout.farHalf * farH * layout.farArea) / (layout.farHalf + farH * layout.farArea),
        }
  }
  let { underC, farG } = under()
  const isOpen = layout.topHalf > 0
  let topC = temp[0]!
  let peakC = -Infinity
  let hottestCell = 0
  let given = 0
  let lost = 0
  let stored = 0

  const hydrationOf = (ageMin: number) => {
    const u = (ageMin - inductionMin) * perMin
    return u <= 0 ? 0 : 1 - Math.exp(-Math.LN2 * u * u * u)
  }
  for (let i = 0; i < m; i++) alpha[i] = hydrationOf(age[i]!)

  // Where cast and mould meet; without a mould, where the cast meets the air.
  const rimC = () => {
    const [inner, outer] = [layout.rimInner, layout.rimOuter]
    const outsideC = m < n ? temp[m]! : underC
    return (inner * temp[m - 1]! + outer * outsideC) / (inner + outer)
  }

  const note = (step: number, atS: number) => {
    let [sum, slow, hottest] = [0, 1, -Infinity]
    for (let i = 0; i < m; i++) {
      const a = alpha[i]!
      sum += a * volume[i]!
      if (a < slow) slow = a
      if (temp[i]! > hottest) hottest = temp[i]!
      if (depths) {
        alphas[step * m + i] = a
        temps[step * m + i] = temp[i]!
      }
    }
    if (hottest > peakC) {
      peakC = hottest
      hottestCell = temp.subarray(0, m).indexOf(hottest)
    }
    timeS[step] = atS
    coreC[step] = hottest
    surfaceC[step] = isOpen ? topC : rimC()
    meanAlpha[step] = sum / castVolume
    slowAlpha[step] = slow
  }
  note(0, pouredAtS)

  let warmest = { tempC: -Infinity, atS: pouredAtS }
  const isCooling = (step: number, dt: number) => {
    if (!untilCool) return false
    const [now, before] = [surfaceC[step]!, surfaceC[step - 1]!]
    if (now > warmest.tempC) warmest = { tempC: now, atS: timeS[step]! }
    if (warmest.tempC < untilCool.warmFromC || now < untilCool.coolBelowC) return false
    const isSteady = Math.abs(now - before) * 3600 < STEADY_K_H * dt
    return !(isSteady && timeS[step]! > warmest.atS + STEADY_AFTER_S)
  }

  let atS = pouredAtS
  let last = 0
  for (let step = 1; step <= steps; step++) {
    const dt = step <= fineSteps ? stepS : stepS * COARSE_STEPS
    if (later && around !== later.around && atS >= later.fromS) {
      around = later.around
      ;({ underC, farG } = under())
    }
    // Sources of this step, and capacities after it.
    for (let i = 0; i < m; i++) {
      age[i]! += (rateAt(temp[i]!) * dt) / 60
      const next = hydrationOf(age[i]!)
      const change = next - alpha[i]!
      const heat = mix.hemihydrateKgM3 * (mix.heatJKg + CP_LOSS * (temp[i]! - 25)) * change
      alpha[i] = next
      capacity[i] = mix.capacityJM3K - mix.capacityLossJM3K * next
      right[i] = heat * volume[i]!
      given += right[i]!
    }
    for (let i = m; i < n; i++) right[i] = 0
    const [slope, constant] = isOpen ? openFace(around, topC) : [0, 0]
    const topG = isOpen ? (layout.topHalf * slope) / (layout.topHalf + slope) : 0
    const topB = isOpen ? (layout.topHalf * constant) / (layout.topHalf + slope) : 0
    right[0]! += topB * dt
    right[n - 1]! += farG * underC * dt
    // Thomas: conductances are the off-diagonals, all times dt.
    for (let i = 0; i < n; i++) {
      const mass = capacity[i]! * volume[i]!
      const below = i > 0 ? conductance[i - 1]! * dt : 0
      const above = i + 1 < n ? conductance[i]! * dt : 0
      let diagonal = mass + below + above
      if (i === 0) diagonal += topG * dt
      if (i === n - 1) diagonal += farG * dt
      right[i]! += mass * temp[i]!
      if (i > 0) {
        diagonal -= below * upper[i - 1]!
        right[i]! += below * right[i - 1]!
      }
      upper[i] = above / diagonal
      right[i]! /= diagonal
    }
    let next = right[n - 1]!
    stored += capacity[n - 1]! * volume[n - 1]! * (next - temp[n - 1]!)
    lost += farG * dt * (next - underC)
    temp[n - 1] = next
    for (let i = n - 2; i >= 0; i--) {
      next = right[i]! + upper[i]! * next
      stored += capacity[i]! * volume[i]! * (next - temp[i]!)
      temp[i] = next
    }
    lost += dt * (topG * temp[0]! - topB)
    if (isOpen) topC = (layout.topHalf * temp[0]! + constant) / (layout.topHalf + slope)
    atS += dt
    note(step, atS)
    last = step
    const cooling = isCooling(step, dt)
    if (
      !cooling &&
      atS >= atLeastS &&
      slowAlpha[step]! >= untilAlpha &&
      (!pastPeak || coreC[step]! < peakC - PAST_PEAK_K)
    )
      break
  }
  const upTo = (series: Float64Array) => series.subarray(0, last + 1)
  return {
    timeS: upTo(timeS),
    coreC: upTo(coreC),
    surfaceC: upTo(surfaceC),
    meanAlpha: upTo(meanAlpha),
    slowAlpha: upTo(slowAlpha),
    hottestAt: (hottestCell + 0.5) / m,
    alpha: alphas.subarray(0, (last + 1) * (depths ? m : 0)),
    tempC: temps.subarray(0, (last + 1) * (depths ? m : 0)),
    castCells: m,
    closure: (stored + lost - given) / Math.max(1, given),
  }
}
