import type { Batch } from '../../mix'
import { weighAdditions } from '../../plaster'
import { bowlFills } from './mix/bowlFill'
import { airTacticsOf, leavesOut, type PourPlan } from './plan'
import { silicaRatioOf } from './mix/uses'
import {
  KNOWN_STEPS,
  STAGES,
  STEP,
  oftenOf,
  stepsOfLines,
  type FillingWay,
  type KnownStep,
  type PlanStep,
  type ScriptEdits,
  type ScriptLine,
  type Stage,
} from './steps'

/** Steps that only some ways of filling have. */
const OF_WAY: Record<FillingWay, readonly KnownStep[]> = {
  poured: ['pour', 'tap'],
  part_fill: ['part_fill', 'pour', 'tap'],
  squeezed: ['squeeze', 'pour', 'tap'],
  hand_built: ['face_coat', 'thicken', 'build', 'roughen', 'level'],
  reinforced: ['face_coat', 'thicken', 'reinforce', 'build', 'roughen', 'level'],
  two_stage: ['pour', 'vibrate', 'roughen', 'tap'],
  second_layer: ['key_layer', 'bond_coat', 'pour', 'tap'],
  slush: ['pour', 'turn', 'level'],
}
const IN_SOME_WAYS = new Set(Object.values(OF_WAY).flat())

/** Known steps that this plan has before anybody edits it, in the order of the job. */
function usualSteps(plan: PourPlan): KnownStep[] {
  const { properties, additions = [] } = plan.plaster
  const way = plan.filling ?? 'poured'
  const tactics = airTacticsOf(plan)
  const filler = properties.dryAddRatio ?? properties.fillerRatio
  const wanted: Partial<Record<KnownStep, boolean>> = {
    weigh_admix: weighAdditions(additions, 1, 1).some((a) => a.into === 'water'),
    weigh_filler: filler > 0,
    sift: plan.addingWay !== 'tipped_in' && plan.addingWay !== 'kneaded',
    soak: plan.addingWay !== 'kneaded',
    // Silica in the air is the worst there is: its extraction is looked at whatever the way, and for nothing else.
    check_air: silicaRatioOf(plan) > 0,
    // A form whose air needs it gets it whatever the way; a coat and a part fill are the first bowl's.
    face_coat: tactics.includes('brush_coat') || undefined,
    part_fill: (tactics.includes('part_fill') && OF_WAY[way].includes('tap')) || undefined,
  }
  return KNOWN_STEPS.filter((id) => wanted[id] ?? (!IN_SOME_WAYS.has(id) || OF_WAY[way].includes(id)))
}

const stageOfLine = (line: ScriptLine): Stage => ('step' in line ? STEP[line.step].stage : line.own.stage)
const keyOfLine = (line: ScriptLine) => ('step' in line ? line.step : line.own.id)

/** Lines that stand in one place of the script and may change places at most with one another. */
function placeOf(line: ScriptLine): string {
  const weighing = 'step' in line && STEP[line.step].stage === 'weigh'
  const often = oftenOf(line)
  const run = often === 'first_bowl' || often === 'bowl_but_last' ? 'bowl' : often
  return weighing ? 'weighing' : run === 'pour' ? `once ${stageOfLine(line)}` : run
}
const PLACES = ['once mould', 'weighing', 'once weigh', 'bowl', 'last_bowl', 'once demould', 'once dry']

/** Whether the second of two neighbours in one place may be done before the first. */
function mayChangePlaces(first: ScriptLine, second: ScriptLine): boolean {
  if (placeOf(first) !== placeOf(second)) return false
  // One's own step of the pouring comes after the stirring: what is stirred has no place before it.
  if ('own' in first || 'own' in second) {
    const known = 'step' in first ? first.step : 'step' in second ? second.step : undefined
    return known === undefined || STEP[known].stage === 'pour' || STEP[known].of === 'pour'
  }
  const [a, b] = [STEP[first.step], STEP[second.step]]
  return 'among' in a && 'among' in b && a.among === b.among
}

/**
 * The script of a plan: its usual steps as the caster edited them. Steps that the plan has come to need since (something
 * into the water) stand where they usually do; those it no longer has are gone.
 */
export function scriptOf(plan: PourPlan): ScriptLine[] {
  const usual = usualSteps(plan).filter((id) => !leavesOut(plan, id))
  const edits = plan.script
  if (!edits) return usual.map((step) => ({ step }))
  const lines: ScriptLine[] = edits.order.filter((line) => 'own' in line || usual.includes(line.step))
  const named = new Set(lines.map(keyOfLine))
  for (const step of usual) {
    if (named.has(step)) continue
    const rank = KNOWN_STEPS.indexOf(step)
    const before = lines.findLastIndex((l) => 'step' in l && KNOWN_STEPS.indexOf(l.step) < rank)
    lines.splice(before + 1, 0, { step })
  }
  return lines
}

/** What may be put back into a plan's script. */
export function leftOutOf(plan: PourPlan): KnownStep[] {
  return usualSteps(plan).filter((id) => leavesOut(plan, id))
}

/** Steps of a plan in order, each on its bowl. */
export function stepsOf(plan: PourPlan, batches: readonly Batch[]): PlanStep[] {
  const fills = bowlFills(plan, batches)
  return stepsOfLines(scriptOf(plan), batches.length, (batch) =>
    fills ? fills[batch]!.startsAny : batch === 0,
  )
}

/** Whether a line can go one place up or down. */
export function canMove(lines: readonly ScriptLine[], index: number, by: -1 | 1): boolean {
  const [first, second] = by === -1 ? [lines[index - 1], lines[index]] : [lines[index], lines[index + 1]]
  return first !== undefined && second !== undefined && mayChangePlaces(first, second)
}

/** @param index of a line that `canMove` by as much. */
export function moveLine(lines: readonly ScriptLine[], index: number, by: -1 | 1): ScriptLine[] {
  const moved = [...lines]
  ;[moved[index], moved[index + by]] = [moved[index + by]!, moved[index]!]
  return moved
}

/** With one's own step at the end of its place. */
export function addLine(lines: readonly ScriptLine[], line: ScriptLine): ScriptLine[] {
  const rank = PLACES.indexOf(placeOf(line))
  const before = lines.findLastIndex((l) => PLACES.indexOf(placeOf(l)) <= rank)
  return [...lines.slice(0, before + 1), line, ...lines.slice(before + 1)]
}

export type ScriptFault = 'script_out_of_order' | 'script_needs_step' | 'own_step_twice'

/** What is wrong with edits, whoever made them: a known step where it cannot stand, or one that must not be missing. */
export function faultOfScript({ order, leftOut }: ScriptEdits): ScriptFault | undefined {
  if (leftOut.some((id) => !STEP[id].mayLeaveOut)) return 'script_needs_step'
  if (new Set(order.map(keyOfLine)).size < order.length) return 'own_step_twice'
  const places = order.map((l) => PLACES.indexOf(placeOf(l)))
  if (places.some((p, i) => i > 0 && p < places[i - 1]!)) return 'script_out_of_order'
  for (const [i, a] of order.entries())
    for (const b of order.slice(i + 1)) {
      if (
        stageOfLine(a) !== stageOfLine(b) &&
        STAGES.indexOf(stageOfLine(a)) > STAGES.indexOf(stageOfLine(b))
      )
        return 'script_out_of_order'
      if (!('step' in a) || !('step' in b)) continue
      const swapped = KNOWN_STEPS.indexOf(a.step) > KNOWN_STEPS.indexOf(b.step)
      if (swapped && !mayChangePlaces(b, a)) return 'script_out_of_order'
    }
  return undefined
}
