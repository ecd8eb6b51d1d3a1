/** A small mould kept ready for what is left in the bowl. */
export interface SpillMould {
  mouldId: string
  name: string
  cavityMl: number
}

export interface LeftoverPlan {
  leftMl: number
  /** In the order of filling. Only the last may stay part full. */
  fills: (SpillMould & { fillMl: number })[]
  /** What still sets in the bowl and is broken out. */
  restMl: number
}

/** Half a cast is none: a mould is begun only if this share of it can be filled. */
const WORTH_FILLING = 0.85

/** Where the slurry left over goes: the largest spill mould that it fills first, then the next. */
export function placeLeftover(leftMl: number, spill: readonly SpillMould[]): LeftoverPlan {
  let restMl = Math.max(0, leftMl)
  const fills: LeftoverPlan['fills'] = []
  for (const mould of [...spill].sort((a, b) => b.cavityMl - a.cavityMl || a.name.localeCompare(b.name))) {
    if (restMl < WORTH_FILLING * mould.cavityMl) continue
    const fillMl = Math.min(restMl, mould.cavityMl)
    fills.push({ ...mould, fillMl })
    restMl -= fillMl
  }
  return { leftMl: Math.max(0, leftMl), fills, restMl }
}
