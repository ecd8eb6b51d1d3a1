import { heatMix } from '../../core/heat'
import { mixProperties } from '../../core/mix'
import type { MouldKind } from '../../core/mould'
import { plasterProperties, type PlasterClassId } from '../../core/plaster'
import { settingSigmaLn } from '../../core/setting'
import type { SetProblem } from '../../core/forecast'

/** A slab in 6 mm of silicone on the bench at room temperature, of a class at its usual ratio. */
export function problemOf(
  classId: PlasterClassId,
  change: Partial<Omit<SetProblem, 'piece'>> & { tempC?: number; sizeMm?: number; kind?: MouldKind } = {},
): SetProblem {
  const { tempC = 20, sizeMm = 25, ...rest } = change
  const plaster = plasterProperties(classId)
  const consistency = plaster.useConsistency
  const setting = {
    plaster,
    consistency,
    mixTempC: tempC,
    stirS: 120,
    stirManner: 'hand' as const,
    restS: 150,
    ratioSigmaLn: 0.02,
  }
  return {
    setting,
    mix: heatMix(
      plaster,
      consistency,
      mixProperties({ plaster, consistency, waterTempC: tempC, airFraction: 0.01 }),
    ),
    piece: {
      shape: 'slab',
      sizeMm,
      walls: [{ material: 'silicone', thicknessMm: 6 }],
      standsOn: 'bench',
      top: 'open',
    },
    thin: undefined,
    around: { airTempC: tempC, rhPct: 50, speedMS: 0.1, mouldTempC: tempC, groundTempC: tempC, sunWM2: 0 },
    pouredAtS: 330,
    isPoured: true,
    sigmaLn: settingSigmaLn(setting),
    even: true,
    kind: 'silicone',
    ...rest,
  }
}

/** Pieces of four kinds, from a warm block to a cold print in the ground. */
export const PROBLEMS = [
  problemOf('pottery'),
  problemOf('gc', { sizeMm: 50, kind: 'rigid_plastic' }),
  problemOf('pop', { tempC: 8, sizeMm: 15, kind: 'ground' }),
  problemOf('hsgc', { sizeMm: 30, kind: 'latex' }),
]
