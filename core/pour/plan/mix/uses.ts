import { DRY_TARGETS, type DryTarget } from '../../../drying'
import { classValuesOf } from './classValues'
import type { PourPlan } from '../plan'

/** Silica to plaster by weight: of the class, and added. */
export function silicaRatioOf(plan: PourPlan): number {
  const added = plan.plaster.additions?.find((a) => a.id === 'silica')?.pct ?? 0
  return classValuesOf(plan).fillerRatio + added / 100
}

/** More silica than a mix has for anything but the kiln (estimate). */
export const KILN_SILICA_RATIO = 0.2

/** Whether it is a mix for the kiln. Other fillers (pigment, fibre, sand) are not meant for it. */
export const isForKiln = (plan: PourPlan): boolean => silicaRatioOf(plan) > KILN_SILICA_RATIO

/** What a piece of this plan may be dried for: what the plan says, and what such a piece is used for. */
export function dryUsesOf(plan: PourPlan): DryTarget[] {
  const purposes = (plan.mould.members ?? []).map((m) => m.purpose)
  const draws = purposes.some((p) => p === 'slip_mould' || p === 'slab')
  const fired = isForKiln(plan)
  const fits: Record<DryTarget, boolean> = {
    handle: true,
    kiln: fired,
    // Film or paint on it, and a mould would draw no more water from the clay.
    paint: !fired && !draws,
    sand: !fired,
    seal: !fired && !draws,
    pottery_mould: !fired && (draws || purposes.length === 0),
    full_strength: true,
  }
  return DRY_TARGETS.filter((t) => fits[t] || t === plan.dryTarget)
}
