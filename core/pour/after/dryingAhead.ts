import {
  savingsFrom,
  targetFractionLeft,
  timeToFractionS,
  type DryTarget,
  type DryingSaving,
} from '../../drying'
import { tasksFor, waterWindow, type FinishTask } from '../../finish'
import type { Range } from '../../provenance'
import { MS_PER } from '../../units'
import { dryUsesOf } from '../plan/mix/uses'
import { stretchOf } from '../drying'
import type { PourOutlook } from '../outlook'

/** When a drying piece will do for something, ms: one in ten before, half of them, nine in ten after. */
export interface DryDate {
  target: DryTarget
  /** The one that the plan dries it for. */
  wanted: boolean
  atMs: Range
}

/** What is to be said of a drying piece besides how far it is. */
export interface DryingAhead {
  dates: DryDate[]
  savings: DryingSaving[]
  /** What there is to do to it, each from when and until when. */
  tasks: FinishWindow[]
}

/** When a task may be done, ms, by the middle of the forecast; `untilMs` where it comes to be too hard or too dry. */
export interface FinishWindow {
  task: FinishTask
  fromMs: number
  untilMs: number | undefined
  done: boolean
}

/** What there is to do to a piece that is out, each with its window. */
export function finishWindows(facts: PourOutlook): FinishWindow[] {
  const { drying, plan, mix, live } = facts
  if (!drying) return []
  const members = plan.mould.members ?? []
  const tasks = tasksFor({
    purposes: members.map((m) => m.purpose),
    materials: members.map((m) => m.facts.material),
  })
  const atMs = (left: number) => drying.startMs + timeToFractionS(drying.forecast, left).mid * MS_PER.s
  return tasks.map((task) => {
    const { fromLeft, untilLeft, afterH } = waterWindow(task, mix.freeWaterOfDryMass)
    return {
      task,
      fromMs: Math.max(drying.startMs + afterH * MS_PER.h, atMs(fromLeft)),
      untilMs: untilLeft > 0 ? atMs(untilLeft) : undefined,
      done: live.some(({ body }) => body.type === 'finish_done' && body.task === task),
    }
  })
}

/** Dates for every use, what would be quicker, and what there is to do meanwhile. */
export function dryingAhead(facts: PourOutlook, nowMs: number): DryingAhead | undefined {
  const { drying, plan, mix } = facts
  if (!drying) return undefined
  const { forecast, startMs, legs, targetLeft } = drying
  const nowS = (nowMs - startMs) / MS_PER.s
  // It is out of its mould: whether it may be lifted is no question of drying any more.
  const uses = dryUsesOf(plan).filter((target) => target !== 'handle' || target === plan.dryTarget)
  const dates = uses.map((target): DryDate => {
    const { low, mid, high } = timeToFractionS(forecast, targetFractionLeft(target, mix.freeWaterOfDryMass))
    const at = (s: number) => startMs + s * MS_PER.s
    return { target, wanted: target === plan.dryTarget, atMs: { low: at(low), mid: at(mid), high: at(high) } }
  })
  const leg = legs.findLast((l) => l.fromMs <= nowMs) ?? legs[0]!
  return {
    dates: dates.sort((a, b) => a.atMs.mid - b.atMs.mid),
    savings: savingsFrom(
      forecast,
      stretchOf(plan, mix, leg, startMs),
      leg.lies,
      plan.mould.thicknessMm,
      targetLeft,
      nowS,
    ),
    tasks: finishWindows(facts),
  }
}
