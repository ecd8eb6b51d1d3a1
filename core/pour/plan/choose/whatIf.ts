import type { SetProblem } from '../../../forecast'
import { heatMix } from '../../../heat'
import { mixProperties, mixTempC } from '../../../mix'
import type { MouldMaterial } from '../../../mould'
import { mixInputOf } from '../mix/mixing'
import type { PourPlan } from '../plan'
import { USUAL_WALL } from '../setProblem'

/** What might have been otherwise; what is not given stays. */
export interface WhatIf {
  waterTempC?: number
  stirS?: number
  consistency?: number
  /** Thickness or radius of the piece, mm. */
  sizeMm?: number
  /** Air, mould and ground, °C. */
  roomTempC?: number
  material?: MouldMaterial
}

/** The same piece under other conditions, everything else as it is. Cheap: a slider may be dragged over it. */
export function problemIf(problem: SetProblem, plan: PourPlan, change: WhatIf): SetProblem {
  const { piece, around } = problem
  const consistency = change.consistency ?? problem.setting.consistency
  const { properties } = plan.plaster
  const asPlannedC = mixTempC(
    problem.setting.consistency,
    plan.waterTempC,
    plan.powderTempC,
    properties.fillerRatio,
  )
  const otherC = mixTempC(
    consistency,
    change.waterTempC ?? plan.waterTempC,
    plan.powderTempC,
    properties.fillerRatio,
  )
  const setting = {
    ...problem.setting,
    consistency,
    stirS: change.stirS ?? problem.setting.stirS,
    // A slurry that was measured keeps what it was off by.
    mixTempC: problem.setting.mixTempC + otherC - asPlannedC,
  }
  const mix = mixProperties({ ...mixInputOf(plan), consistency })
  const wall = change.material && USUAL_WALL[change.material]
  const byC = change.roomTempC === undefined ? 0 : change.roomTempC - around.airTempC
  const laterS = setting.stirS - problem.setting.stirS
  return {
    ...problem,
    setting,
    mix: heatMix(properties, consistency, mix),
    piece: {
      ...piece,
      sizeMm: change.sizeMm ?? piece.sizeMm,
      walls: change.material ? (wall ? [wall] : []) : piece.walls,
      standsOn:
        change.material === 'sand_soil'
          ? 'wet_sand'
          : change.material && !['bench', 'air'].includes(piece.standsOn)
            ? 'bench'
            : piece.standsOn,
    },
    thin: change.sizeMm === undefined && change.material === undefined ? problem.thin : undefined,
    around: {
      ...around,
      airTempC: around.airTempC + byC,
      mouldTempC: around.mouldTempC + byC,
      groundTempC: around.groundTempC + byC,
    },
    pouredAtS: Math.max(0, problem.pouredAtS + laterS),
  }
}
