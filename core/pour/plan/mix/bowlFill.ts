import type { Batch } from '../../../mix'
import type { FillingWay } from '../steps'
import type { PourPlan } from '../plan'

/** Which moulds one bowl fills. */
export interface BowlFill {
  /** Full once it is in, by mould, in the order of filling. */
  full: { name: string; count: number }[]
  /** Begun by it and finished by the next bowl. */
  begun: string | undefined
  /** Every piece that has slurry of it, by its number from 1. */
  pieces: number[]
  /** Whether any mould has its first slurry from this bowl. */
  startsAny: boolean
}

/** Ways in which a mould is filled in one go; in the others every bowl goes into every mould. */
const IN_ONE_GO: ReadonlySet<FillingWay> = new Set(['poured', 'part_fill', 'squeezed'])

/** Less of a mould than this is none: bowls are rounded to the scale. */
const NEAR = 0.02

/**
 * Which of the plan's moulds each bowl fills, one mould after the other. Undefined where every bowl goes into every mould:
 * coats, layers, a base, or one piece.
 */
export function bowlFills(
  plan: Pick<PourPlan, 'filling' | 'mould'>,
  batches: readonly Pick<Batch, 'slurryMl' | 'start'>[],
): BowlFill[] | undefined {
  const pieces = (plan.mould.members ?? []).flatMap(({ name, count, cavityMl, volume }) =>
    Array.from({ length: count * volume.cavities }, () => ({ name, cavityMl: cavityMl / volume.cavities })),
  )
  if (pieces.length < 2 || batches.length < 2) return undefined
  if (!IN_ONE_GO.has(plan.filling ?? 'poured')) return undefined
  if (batches.some((b) => b.start === 'when_it_thickens')) return undefined
  const slurryMl = batches.reduce((sum, b) => sum + b.slurryMl, 0)
  const cavityMl = pieces.reduce((sum, p) => sum + p.cavityMl, 0)
  let poured = 0
  let done = 0
  let begunBefore = false
  let filledMl = 0
  return batches.map((batch) => {
    poured += batch.slurryMl
    const upToMl = (cavityMl * poured) / slurryMl
    const fill: BowlFill = { full: [], begun: undefined, pieces: [], startsAny: false }
    for (; done < pieces.length; done++) {
      const { name, cavityMl: ml } = pieces[done]!
      const has = (upToMl - filledMl) / ml
      if (has > NEAR && !begunBefore) fill.startsAny = true
      if (has > NEAR) fill.pieces.push(done + 1)
      if (has < 1 - NEAR) {
        if (has > NEAR) fill.begun = name
        begunBefore = has > NEAR
        break
      }
      filledMl += ml
      begunBefore = false
      const last = fill.full.at(-1)
      if (last?.name === name) last.count++
      else fill.full.push({ name, count: 1 })
    }
    return fill
  })
}
