import { STEP, oftenOf, stageOf, type PlanStep, type ScriptLine, type Stage, type StepId } from './table'

/** Tells one step from another: of a bowl, and of the caster's own by which. */
export const stepKey = (id: StepId, batch: number, own?: string) => `${own ?? id}/${batch}`
export const keyOfStep = (step: PlanStep) => stepKey(step.id, step.batch, step.own?.id)

const isWeighing = (id: StepId) => STEP[id].stage === 'weigh'
/** The bowls are empty: these are about the piece, which waits for the bowl mixed last. */
export function isAfterPouring(step: PlanStep): boolean {
  if (step.own) return step.own.stage === 'pour' && !step.own.eachBowl
  const { of, stage } = STEP[step.id]
  return of === 'last_bowl' || stage === 'demould' || stage === 'dry'
}

/**
 * Puts a script's lines onto bowls: everything is weighed before water meets powder; then bowl after bowl is mixed.
 * @param startsMoulds whether a bowl is the first that some mould has: what is done first is done with it.
 */
export function stepsOfLines(
  lines: readonly ScriptLine[],
  batches: number,
  startsMoulds: (batch: number) => boolean,
): PlanStep[] {
  const bowls = Array.from({ length: batches }, (_, batch) => batch)
  const at = (line: ScriptLine, batch: number): PlanStep =>
    'step' in line ? { id: line.step, batch } : { id: 'own', batch, own: line.own }
  const stage = (line: ScriptLine): Stage => ('step' in line ? STEP[line.step].stage : line.own.stage)
  const weighing = (line: ScriptLine) => 'step' in line && isWeighing(line.step)
  const mixing = (line: ScriptLine, batch: number) => {
    if (weighing(line)) return false
    switch (oftenOf(line)) {
      case 'bowl':
        return true
      case 'first_bowl':
        return startsMoulds(batch)
      case 'bowl_but_last':
        return batch < batches - 1
      case 'last_bowl':
      case 'pour':
        return false
    }
  }
  const once = (stages: readonly Stage[]) =>
    lines.filter((l) => oftenOf(l) === 'pour' && stages.includes(stage(l))).map((l) => at(l, 0))
  return [
    ...once(['mould']),
    ...bowls.flatMap((batch) => lines.filter(weighing).map((l) => at(l, batch))),
    ...once(['weigh']),
    ...bowls.flatMap((batch) => lines.filter((l) => mixing(l, batch)).map((l) => at(l, batch))),
    ...lines.filter((l) => oftenOf(l) === 'last_bowl').map((l) => at(l, batches - 1)),
    ...once(['demould']),
    ...once(['dry']),
  ]
}

/**
 * Steps with another bowl put in for what a mould ran short of: before the closing steps (tapping, levelling), or after
 * them with closing steps of its own where the lack was seen that late.
 */
export function withTopUp(steps: readonly PlanStep[], closed: boolean): PlanStep[] {
  const batch = 1 + Math.max(...steps.map((s) => s.batch))
  const first = steps.filter(
    (s) => s.batch === 0 && (s.own ? s.own.stage === 'pour' && s.own.eachBowl : STEP[s.id].of === 'bowl'),
  )
  const extra: PlanStep[] = [
    ...first.filter((s) => isWeighing(s.id)),
    ...first.filter((s) => !isWeighing(s.id)),
  ].map((s) => ({ ...s, batch }))
  const demould = steps.findIndex((s) => stageOf(s) === 'demould')
  const closing = steps.slice(0, demould).findIndex((s) => isAfterPouring(s) && s.batch === batch - 1)
  const from = closing === -1 ? demould : closing
  const ending = steps.slice(from, demould).map((s) => ({ ...s, batch }))
  return closed
    ? [...steps.slice(0, demould), ...extra, ...ending, ...steps.slice(demould)]
    : [...steps.slice(0, from), ...extra, ...ending, ...steps.slice(demould)]
}

/** Nothing is to be done after it. */
export const isLastStep = (step: PlanStep) => step.id === 'dry'
