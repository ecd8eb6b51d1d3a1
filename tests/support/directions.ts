import { diceOf } from '../../devices/dice'
import { checkConsistency, consistencyRangeByVolume } from '../../core/mix'
import { MOULD_KINDS } from '../../core/mould'
import { PLASTER_CLASS_IDS, plasterProperties, type PlasterClassId } from '../../core/plaster'
import { evaluatePlan, type PlanOutcome, type PourEvent, type PourPlan } from '../../core/pour'
import { SETTING_EVENTS, STIR_INTENSITY, isothermalSetting, type StirManner } from '../../core/setting'
import { bagSpread } from '../../core/stock'
import { eventAt, fold, testPlan, wholeRun } from '../unit/plans'

/**
 * Directions that every caster knows (common practice, no source), over plans drawn at random. Each says whether it holds of
 * one draw; a hair's breadth is allowed where two figures are the same but for the step of a sum.
 */
const MIN = 60_000

interface Draw {
  between: (low: number, high: number) => number
  of: <T>(all: readonly T[]) => T
}

function drawOf(seed: number): Draw {
  const uniform = diceOf(seed)
  return {
    between: (low, high) => low + (high - low) * uniform(),
    of: (all) => all[Math.min(all.length - 1, Math.floor(all.length * uniform()))]!,
  }
}

function planOf({ between, of }: Draw, change: Partial<PourPlan> = {}, classId?: PlasterClassId): PourPlan {
  const plan = testPlan(classId ?? of(PLASTER_CLASS_IDS))
  const tempC = between(8, 30)
  return {
    ...plan,
    mould: {
      ...plan.mould,
      kind: of(MOULD_KINDS),
      cavityMl: between(200, 4000),
      thicknessMm: between(8, 60),
    },
    consistency: plan.plaster.properties.useConsistency * between(0.95, 1.1),
    waterTempC: tempC,
    powderTempC: tempC,
    air: { tempC: between(10, 30), rhPct: between(30, 75), speedMS: between(0.05, 1.5) },
    ...change,
  }
}

function outcomeOf(plan: PourPlan): PlanOutcome {
  const evaluation = evaluatePlan(plan)
  if (!evaluation.ok) throw new Error(JSON.stringify(evaluation.issues))
  return evaluation.outcome
}
const refuses = (plan: PourPlan, code: string) => {
  const evaluation = evaluatePlan(plan)
  return !evaluation.ok && evaluation.issues.some((i) => i.code === code)
}
const warns = (plan: PourPlan, code: string) => {
  const evaluation = evaluatePlan(plan)
  return evaluation.ok && evaluation.issues.some((i) => i.code === code)
}
const HAIR = 1 - 1e-6
const notLater = (a: { mid: number }, b: { mid: number }) => a.mid * HAIR <= b.mid
const spotOf = (dayC: number, nightC: number): PourPlan['dryingPlace'] => ({
  placeId: null,
  name: 'A cabinet',
  air: { tempC: dayC, rhPct: 20, speedMS: 1 },
  nightAir: { tempC: nightC, rhPct: 20, speedMS: 1 },
})

export const DIRECTIONS: Record<string, (draw: Draw) => boolean> = {
  '1 a cast of 5 mm of pottery plaster at 20 °C never gets warm': (draw) => {
    const { of, between } = draw
    const plan = planOf(
      draw,
      { waterTempC: 20, powderTempC: 20, air: { ...testPlan().air, rhPct: between(30, 75) } },
      'pottery',
    )
    const mould = { ...plan.mould, thicknessMm: 5, kind: of(MOULD_KINDS.filter((k) => k !== 'shell')) }
    return outcomeOf({ ...plan, mould }).heat.warmS === undefined
  },
  '2 below freezing there is no forecast': (draw) => {
    const below = draw.between(-15, -0.1)
    const plan = planOf(draw)
    return draw.of([
      () => refuses({ ...plan, mouldTempC: below }, 'mould_freezing'),
      () => refuses({ ...plan, air: { ...plan.air, tempC: below } }, 'air_freezing'),
    ])()
  },
  '3 drying air over 50 °C is refused, over 45 warned of, by day or by night': (draw) => {
    const [cool, warm, hot] = [draw.between(15, 30), draw.between(45.1, 50), draw.between(50.1, 80)]
    const at = (dayC: number, nightC: number) => planOf(draw, { dryingPlace: spotOf(dayC, nightC) })
    return (
      refuses(at(hot, cool), 'air_beyond_drying') &&
      refuses(at(cool, hot), 'air_beyond_drying') &&
      warns(at(warm, cool), 'air_too_hot') &&
      warns(at(cool, warm), 'air_too_hot')
    )
  },
  '4 mix water over 45 °C is refused': (draw) =>
    refuses(planOf(draw, { waterTempC: draw.between(45.1, 90) }), 'water_too_hot'),
  '5 water that cannot turn all of the powder is refused': (draw) => {
    const classId = draw.of(PLASTER_CLASS_IDS)
    const properties = plasterProperties(classId)
    return checkConsistency(18.6 * properties.hemihydrateFraction * draw.between(0.3, 1), properties).some(
      (i) => i.severity === 'error',
    )
  },
  '6 three scoops of tapped α powder to one are about 24, and said to be too stiff': (draw) => {
    const scoop = { measureMl: draw.between(50, 1000), packing: 'tapped', weighedKgM3: null } as const
    const { mid } = consistencyRangeByVolume(3, 'gc', scoop)
    return Math.abs(mid - 24) < 1 && checkConsistency(mid, plasterProperties('gc')).length > 0
  },
  '7 more water: weaker, lighter, slower to set, later dry': (draw) => {
    const plan = planOf(draw)
    const [less, more] = [1, draw.between(1.02, 1.2)].map((k) =>
      outcomeOf({ ...plan, consistency: plan.consistency * k }),
    )
    return (
      more!.strength.dry.mid < less!.strength.dry.mid &&
      more!.mix.dryDensityKgM3 < less!.mix.dryDensityKgM3 &&
      notLater(less!.setting.timeS.final_set, more!.setting.timeS.final_set) &&
      notLater(less!.dryS, more!.dryS)
    )
  },
  '8 a warmer mix sets sooner up to 38 °C, later above 45': (draw) => {
    const at = (mixTempC: number) =>
      isothermalSetting({
        plaster: plasterProperties('pop'),
        consistency: 60,
        mixTempC,
        stirS: 120,
        stirManner: 'hand',
        restS: 100,
        ratioSigmaLn: 0.02,
      }).timeS
    const [low, high] = [draw.between(2, 36), draw.between(45, 70)]
    const [cold, warm] = [at(low), at(low + 1)]
    const [hot, hotter] = [at(high), at(high + 1)]
    return SETTING_EVENTS.every((e) => notLater(warm[e], cold[e]) && notLater(hot[e], hotter[e]))
  },
  '9 more wind, drier air, thinner, a face more: never later dry': (draw) => {
    const plan = planOf(draw, { dryingExposure: 'one_face' })
    const { air, mould } = plan
    const before = outcomeOf(plan).dryS
    return [
      { ...plan, air: { ...air, speedMS: air.speedMS * draw.between(1, 4) } },
      { ...plan, air: { ...air, rhPct: air.rhPct * draw.between(0.5, 1) } },
      { ...plan, mould: { ...mould, thicknessMm: mould.thicknessMm * draw.between(0.5, 1) } },
      { ...plan, dryingExposure: 'both_faces' as const },
      { ...plan, dryingExposure: 'turned' as const },
    ].every((better) => notLater(outcomeOf(better).dryS, before))
  },
  '10 stirred longer or harder: never slower to set': (draw) => {
    const plan = planOf(draw, { stirS: draw.between(20, 300), stirManner: 'gentle' })
    const harder = draw.of(Object.keys(STIR_INTENSITY) as StirManner[])
    const times = (change: Partial<PourPlan>) => outcomeOf({ ...plan, ...change }).setting.timeS
    // Longer stirring puts the pour off, and the mould's heat with it: by the second.
    const [before, longer, hard] = [
      times({}),
      times({ stirS: plan.stirS * 1.5 }),
      times({ stirManner: harder }),
    ]
    return SETTING_EVENTS.every(
      (e) => longer[e].mid <= before[e].mid + 0.02 * before[e].mid && notLater(hard[e], before[e]),
    )
  },
  '11 a thicker piece: hotter inside, cool again later': (draw) => {
    const plan = planOf(draw)
    const at = (thicknessMm: number) => outcomeOf({ ...plan, mould: { ...plan.mould, thicknessMm } }).heat
    const [thin, thick] = [at(plan.mould.thicknessMm), at(plan.mould.thicknessMm * draw.between(1.05, 2))]
    const later = thin.coolS === undefined || thick.coolS === undefined || thick.coolS >= thin.coolS * HAIR
    return thick.peakC >= thin.peakC - 0.05 && later
  },
  '12 a temperature read after the working time moves no start': (draw) => {
    const run = wholeRun().slice(0, 9)
    const read = eventAt(draw.between(25, 90) * MIN, {
      type: 'temperature',
      place: 'slurry',
      tempC: draw.between(2, 60),
    })
    return (
      JSON.stringify(fold(testPlan(), [...run, read]).settingInput) ===
      JSON.stringify(fold(testPlan(), run).settingInput)
    )
  },
  '13 what is told twice moves nothing twice': (draw) => {
    const run = wholeRun()
    const again: PourEvent = draw.of(run)
    const strip = (events: PourEvent[]) => JSON.stringify(fold(testPlan(), events))
    return strip([...run, again]) === strip(run)
  },
  '14 ranges are ordered, and never narrow for an old bag, a ratio by eye or a reading less': (draw) => {
    const plan = planOf(draw)
    const old = bagSpread({ keeping: 'dry_open', openDays: draw.between(50, 600) })
    const { plaster } = plan
    const range = (change: Partial<PourPlan>) => outcomeOf({ ...plan, ...change }).setting.timeS.final_set
    const [now, aged, byEye] = [
      range({}),
      range({
        plaster: {
          ...plaster,
          properties: {
            ...plaster.properties,
            timeSigmaLn: Math.max(old, plaster.properties.timeSigmaLn ?? 0),
          },
        },
      }),
      range({ ratioMethod: 'by_eye' }),
    ]
    const isOrdered = [now, aged, byEye].every((r) => r.low <= r.mid && r.mid <= r.high)
    const width = (r: typeof now) => r.high / r.low
    const weighed = wholeRun()
    const dry = (events: PourEvent[]) => {
      const found = fold(testPlan(), events).drying!.forecast
      return found.sigmaLnSpeed
    }
    const fewer = weighed.filter((e) => e.id !== weighed.find((x) => x.body.type === 'weighing')!.id)
    return (
      isOrdered &&
      width(aged) >= width(now) * HAIR &&
      width(byEye) >= width(now) * HAIR &&
      dry(fewer) >= dry(weighed) * HAIR
    )
  },
  '15 scaling a job scales its masses and moves no time of drying': (draw) => {
    const plan = planOf(draw, { scaleDivisionG: 0.01, sparePct: 0 })
    const k = draw.between(1.5, 4)
    const at = (cavityMl: number) => outcomeOf({ ...plan, mould: { ...plan.mould, cavityMl } })
    const [one, more] = [at(500), at(500 * k)]
    const scales = (a: number, b: number) => Math.abs(b / a / k - 1) < 1e-3
    return (
      scales(one.weighOut.powderG, more.weighOut.powderG) &&
      scales(one.weighOut.waterG, more.weighOut.waterG) &&
      scales(one.dryMassG, more.dryMassG) &&
      Math.abs(more.dryS.mid / one.dryS.mid - 1) < 1e-9
    )
  },
}

/** In how many of the draws each direction is broken. */
export function brokenDirections(
  draws: number,
  seed: number,
  directions: readonly string[] = Object.keys(DIRECTIONS),
): { direction: string; broken: number }[] {
  return directions.map((direction, i) => ({
    direction,
    broken: Array.from({ length: draws }, (_, n) =>
      DIRECTIONS[direction]!(drawOf(seed + 1000 * i + n)),
    ).filter((held) => !held).length,
  }))
}
