import { figure } from '~/parts/show/figures'
import { batchOf, isKept, soakTimeS, type PourOutlook, type StepId } from '#core/pour'
import { sinceFirstPowderS } from '~/parts/mix/pourTime'
import { durationText } from '~/parts/show/time'

export interface ComparisonRow {
  what: string
  planned: string
  happened: string
  /** Far enough from the plan to matter. */
  off: boolean
}

const MASS_TOLERANCE = 0.1
const TIME_TOLERANCE = 0.5

/** The plan beside what was recorded; what has not happened yet is a dash. */
export function comparisonOf(
  facts: PourOutlook,
  units: { mass: (massG: number) => string; temp: (tempC: number) => string },
): ComparisonRow[] {
  const { plan, planned, actual, doneAtMs } = facts
  /** Over all bowls, of each the last weighing; undefined while nothing was weighed. */
  const massOf = (what: 'water' | 'powder' | 'filler') => {
    const last = new Map<number, number>()
    for (const { body } of facts.live)
      if (body.type === 'weighed' && body.what === what) last.set(batchOf(body), body.massG)
    return last.size === 0 ? undefined : [...last.values()].reduce((sum, massG) => sum + massG, 0)
  }
  const row = (
    what: string,
    plannedValue: number,
    happenedValue: number | undefined,
    show: (v: number) => string,
    tolerance: number,
  ): ComparisonRow => ({
    what,
    planned: show(plannedValue),
    happened: happenedValue === undefined ? '–' : show(happenedValue),
    off: happenedValue !== undefined && Math.abs(happenedValue / plannedValue - 1) > tolerance,
  })
  const between = (from: StepId, to: StepId) => {
    const [a, b] = [doneAtMs[from], doneAtMs[to]]
    return a !== undefined && b !== undefined ? Math.max(0, b - a) / 1000 : undefined
  }
  const sinceSetting = (step: StepId) => {
    const at = doneAtMs[step]
    return at !== undefined && facts.settingStartMs !== undefined
      ? (at - facts.settingStartMs) / 1000
      : undefined
  }
  const promised = isKept(plan) ? plan.kept.promised : undefined
  /** From the first powder in the water, as the plan said it; a dash where what it said is not known any more. */
  const promisedRow = (what: string, saidS: number | undefined, happenedS: number | undefined) => ({
    what,
    planned: saidS === undefined ? '–' : durationText(sinceFirstPowderS(promised!, saidS)),
    happened: happenedS === undefined ? '–' : durationText(sinceFirstPowderS(facts, happenedS)),
  })
  const filled = sinceSetting(doneAtMs.build === undefined ? 'pour' : 'build')
  const whole = (v: number) => figure(v)
  return [
    row('Water', planned.waterG, massOf('water'), units.mass, MASS_TOLERANCE),
    row('Plaster', planned.powderG, massOf('powder'), units.mass, MASS_TOLERANCE),
    ...(planned.fillerG > 0
      ? [row('Dry with it', planned.fillerG, massOf('filler'), units.mass, MASS_TOLERANCE)]
      : []),
    row('Consistency', plan.consistency, actual?.consistency, whole, MASS_TOLERANCE),
    row('Sift', facts.siftS, between('start_sift', 'sift'), durationText, TIME_TOLERANCE),
    ...(soakTimeS(plan) > 0
      ? [row('Soak', plan.soakS, between('sift', 'soak'), durationText, TIME_TOLERANCE)]
      : []),
    row(
      'Stir',
      plan.stirS,
      doneAtMs.stir === undefined ? undefined : facts.settingInput.stirS,
      durationText,
      TIME_TOLERANCE,
    ),
    {
      ...promisedRow('Full by', promised?.workEndS, filled),
      off: (filled ?? 0) > facts.setting.timeS.work_end.high,
    },
    {
      ...promisedRow('Out after', promised?.outS, sinceSetting('demould')),
      off: (sinceSetting('demould') ?? Infinity) < facts.demould.strongEnoughS.low,
    },
  ]
}
