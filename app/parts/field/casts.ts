import { RING_CLEAR_MM } from '#core/field'
import type { PourFacts } from '#core/pour'
import type { VolumeMethod } from '#core/mould'
import type { Find } from '~~/shared/finds'

export interface Against {
  what: 'length' | 'width'
  byMm: number
  byPct: number
  /** What the plaster's own growth makes of it, mm. */
  expectedMm: number
}

/** How much larger a cast is than its print was, along and across. */
export function castAgainst(
  cast: Find['casts'][number],
  way: Extract<VolumeMethod, { by: 'traced' }>,
  expansionPct: number,
): Against[] {
  const print = { length: way.printLengthMm, width: way.ringWidthMm - 2 * RING_CLEAR_MM }
  const measured = { length: cast.lengthMm, width: cast.widthMm }
  return (['length', 'width'] as const).flatMap((what) => {
    const mm = measured[what]
    if (mm === null) return []
    const byMm = mm - print[what]
    return [{ what, byMm, byPct: (100 * byMm) / print[what], expectedMm: (print[what] * expansionPct) / 100 }]
  })
}

export const photosOfPour = (facts: Pick<PourFacts, 'live'> | undefined): string[] =>
  (facts?.live ?? []).flatMap(({ body }) => (body.type === 'photographed' ? [body.photoId] : []))
