import { convectionWM2K, massTransferMS, saturatedVapourKgM3 } from '../../core/drying'
import { DEMOULD_RULES } from '../../core/demould'
import type { SetProblem } from '../../core/forecast'
import { feltWarmth } from '../../core/heat'
import { layoutOf } from '../../core/heat/layout'
import { INDUCTION_SHARE, ageAtMin, eventAlpha, halfHydrationOf, settingRate } from '../../core/setting'
import type { TouchCue } from '../../core/forecast'

/** By how much a piece's own law differs from the models'. */
export interface OtherLaw {
  /** On all of the bucket's times. */
  pace: number
  /** Of the hydration curve 1 − exp(−ln 2 · uⁿ); the models have 3. */
  exponent: number
  /** Factors on heat, conductivity of the cast and thickness of the walls. */
  heat: number
  conductivity: number
  walls: number
}

/** What really happens to a piece, s since mid-sprinkle: marched in small explicit steps, none of the models' solver in it. */
export interface Truth {
  timeS: number[]
  coreC: number[]
  surfaceC: number[]
  readyS: number
  cueS: Partial<Record<TouchCue, number>>
}

const STEP_S = 0.5
const RINGS_ALPHA = 0.95

export function truthOf(problem: SetProblem, law: OtherLaw, forS = 5 * 3600): Truth {
  const { mix, setting, pouredAtS, around } = problem
  const piece = {
    ...problem.piece,
    walls: problem.piece.walls.map((w) => ({ ...w, thicknessMm: w.thicknessMm * law.walls })),
  }
  const m = 8
  const layout = layoutOf(piece, around, m, mix.conductivityWMK * law.conductivity, setting.mixTempC)
  const n = layout.cells
  const half = law.pace * halfHydrationOf(setting)
  const induction = INDUCTION_SHARE * half
  const alphaAt = (ageMin: number) =>
    ageMin <= induction
      ? 0
      : 1 - Math.exp(-Math.LN2 * ((ageMin - induction) / (half - induction)) ** law.exponent)
  const temp = Array.from(layout.startC)
  const age = Array.from({ length: m }, () => ageAtMin(setting, pouredAtS))
  const h = convectionWM2K(around.speedMS) + 5
  const vapour = 0.7 * massTransferMS(around.speedMS)
  const inAir = (around.rhPct / 100) * saturatedVapourKgM3(around.airTempC)
  const farH = piece.standsOn === 'bench' ? 8 : h
  const farG =
    layout.far === 'fixed'
      ? layout.farHalf
      : (layout.farHalf * farH * layout.farArea) / (layout.farHalf + farH * layout.farArea)
  const underC = layout.far === 'fixed' ? around.groundTempC : around.airTempC
  let topC = temp[0]!
  const truth: Truth = { timeS: [], coreC: [], surfaceC: [], readyS: Infinity, cueS: {} }
  let [strongS, peakC, peakS, surfacePeakC, surfacePeakS] = [Infinity, -Infinity, 0, -Infinity, 0]
  const { warmFromC, coolBelowC } = feltWarmth(around.airTempC)
  const rule = DEMOULD_RULES[problem.kind]
  const once = (cue: TouchCue, is: boolean, atS: number) => {
    if (is) truth.cueS[cue] ??= atS
  }
  const castVolume = layout.volume.slice(0, m).reduce((a, b) => a + b, 0)
  for (let atS = pouredAtS; atS < pouredAtS + forS; atS += STEP_S) {
    const flow = new Array<number>(n).fill(0)
    for (let i = 0; i + 1 < n; i++) {
      const w = layout.conductance[i]! * (temp[i]! - temp[i + 1]!)
      flow[i]! -= w
      flow[i + 1]! += w
    }
    flow[n - 1]! -= farG * (temp[n - 1]! - underC)
    if (layout.topHalf > 0) {
      // Half a cell to the face, by a few rounds of its balance.
      for (let round = 0; round < 3; round++) {
        const evaporation = (2.501e6 - 2361 * topC) * vapour * (saturatedVapourKgM3(topC) - inAir)
        topC =
          (layout.topHalf * temp[0]! + h * around.airTempC - evaporation + 60 * topC) /
          (layout.topHalf + h + 60)
      }
      flow[0]! -= layout.topHalf * (temp[0]! - topC)
    }
    let [alphaSum, slow, hottest] = [0, 1, -Infinity]
    for (let i = 0; i < m; i++) {
      const before = alphaAt(age[i]!)
      age[i]! += (settingRate(temp[i]!) * STEP_S) / 60
      const after = alphaAt(age[i]!)
      flow[i]! +=
        (law.heat * mix.hemihydrateKgM3 * mix.heatJKg * (after - before) * layout.volume[i]!) / STEP_S
      alphaSum += after * layout.volume[i]!
      slow = Math.min(slow, after)
    }
    for (let i = 0; i < n; i++) {
      const capacity =
        i < m ? mix.capacityJM3K - mix.capacityLossJM3K * alphaAt(age[i]!) : layout.capacity[i]!
      temp[i]! += (flow[i]! * STEP_S) / (capacity * layout.volume[i]!)
    }
    for (let i = 0; i < m; i++) hottest = Math.max(hottest, temp[i]!)
    const surface = layout.topHalf > 0 ? topC : 0.5 * (temp[m - 1]! + (temp[m] ?? underC))
    if (hottest > peakC) [peakC, peakS] = [hottest, atS]
    if (surface > surfacePeakC) [surfacePeakC, surfacePeakS] = [surface, atS]
    const mean = alphaSum / castVolume
    once('trails_stay', mean >= eventAlpha('work_end', setting), atS)
    once('gloss_gone', mean >= eventAlpha('initial_set', setting), atS)
    once('knife_cut_stays', mean >= eventAlpha('initial_set', setting), atS)
    once('thumbnail_no_dent', mean >= eventAlpha('final_set', setting), atS)
    once('rings', mean >= RINGS_ALPHA, atS)
    once('warm', surface >= warmFromC, atS)
    once('cool_again', truth.cueS.warm !== undefined && surface < coolBelowC && atS > surfacePeakS, atS)
    if (slow >= rule.alpha) strongS = Math.min(strongS, atS)
    if (Number.isInteger(atS / 5)) {
      truth.timeS.push(atS)
      truth.coreC.push(hottest)
      truth.surfaceC.push(surface)
    }
    const isDone = strongS < Infinity && hottest < peakC - 0.3 && truth.cueS.rings !== undefined
    if (isDone && (truth.cueS.warm === undefined || truth.cueS.cool_again !== undefined)) break
  }
  if (truth.cueS.warm !== undefined) truth.cueS.hottest = surfacePeakS
  truth.readyS = rule.pastPeak ? Math.max(strongS, peakS) : strongS
  return truth
}
