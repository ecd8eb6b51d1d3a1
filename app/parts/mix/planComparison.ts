import { figure } from '~/parts/show/figures'
import type { PlanEvaluation, PourPlan } from '#core/pour'
import { pourTimeText } from './pourTime'
import { durationText } from '~/parts/show/time'

export interface PlanRow {
  what: string
  /** One text for each plan; a dash where a plan cannot be computed. */
  values: string[]
  differs: boolean
}

interface Show {
  mass: (massG: number) => string
  temp: (tempC: number) => string
  strength: (strengthMPa: number) => string
}

/** Plans side by side, line by line. */
export function comparePlans(
  plans: readonly { plan: PourPlan; evaluation: PlanEvaluation }[],
  show: Show,
): PlanRow[] {
  const row = (
    what: string,
    of: (plan: PourPlan, outcome: Extract<PlanEvaluation, { ok: true }>['outcome']) => string,
  ): PlanRow => {
    const values = plans.map(({ plan, evaluation }) => (evaluation.ok ? of(plan, evaluation.outcome) : '–'))
    return { what, values, differs: new Set(values).size > 1 }
  }
  return [
    row('Plaster', (p) => p.plaster.name),
    row('Ratio, water to 100', (p) => figure(p.consistency)),
    row('Water', (_, o) => show.mass(o.weighOut.waterG)),
    row('Plaster, weight', (_, o) => show.mass(o.weighOut.powderG)),
    row('Bowls', (_, o) => String(o.batching.batches.length)),
    row('Mix at', (_, o) => show.temp(o.mixTempC)),
    row('Time to pour', (_, o) => pourTimeText(o.pourWindowS)),
    row('Gloss gone', (_, o) => durationText(o.setting.timeS.initial_set.mid)),
    row('Take it out after', (_, o) => durationText(o.demould.recommendedS)),
    row('Dry enough in', (_, o) => durationText(o.dryS.mid)),
    row('Weight, dry', (_, o) => show.mass(o.dryMassG)),
    row('Strength, dry', (_, o) => show.strength(o.strength.dry.mid)),
    row('Grows by', (p) => `${figure(p.plaster.properties.expansionPct, 2)} %`),
  ]
}
