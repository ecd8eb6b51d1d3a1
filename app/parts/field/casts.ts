import { RING_CLEAR_MM } from '#core/field'
import type { PourFacts } from '#core/pour'
import type { VolumeMethod } from '#core/mould'
import { plain } from '~/parts/show/figures'
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

/** The same as a caster says it. */
export const againstWords = ({ what, byMm, byPct, expectedMm }: Against): string =>
  `${what === 'length' ? 'Grew by' : 'Spread by'} ${plain(byMm, 1)} mm (${plain(byPct, 1)} %); its setting alone would make ${plain(expectedMm, 1)} mm.`

export const photosOfPour = (facts: Pick<PourFacts, 'live'> | undefined): string[] =>
  (facts?.live ?? []).flatMap(({ body }) => (body.type === 'photographed' ? [body.photoId] : []))
