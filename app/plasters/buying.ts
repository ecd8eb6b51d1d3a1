import type { PourOutlook } from '#core/pour'
import type { Demand } from '#core/stock'
import type { BagCard, PlasterCard } from '~~/shared/stock'

/** Plaster that pours under way still want: what has been weighed is out of the bag already. */
export function demandsOf(all: readonly PourOutlook[]): Demand[] {
  return all.flatMap((facts) => {
    const powderG = facts.batches
      .filter((b) => b.doneAtMs.weigh_powder === undefined && b.settingStartMs === undefined)
      .reduce((sum, b) => sum + b.planned.powderG, 0)
    return powderG > 0 ? [{ plaster: facts.plan.plaster.name, powderG }] : []
  })
}

/** What the shelf holds, by the plaster's name; used-up bags still tell what size one buys. */
export function stockOf(plasters: readonly PlasterCard[], bags: readonly BagCard[]) {
  return bags.map((b) => ({
    plaster: plasters.find((p) => p.id === b.plasterId)?.name ?? '',
    leftG: b.leftG,
    boughtG: b.boughtG,
  }))
}
