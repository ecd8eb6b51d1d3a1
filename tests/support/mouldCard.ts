import { firstMouldDraft, mouldInputOf } from '../../app/parts/mould/mouldDraft'
import { mouldKindOf } from '../../core/mould'
import type { MouldCard } from '../../shared/moulds'

/** A mould as the shelf has it, of known volume. */
export function mouldCard(
  id: string,
  name: string,
  volumeMl: number,
  change: Partial<MouldCard> = {},
): MouldCard {
  const draft = { ...firstMouldDraft(), name, thicknessMm: 18, thicknessTyped: true }
  draft.volume = {
    ...draft.volume,
    parts: [{ role: 'add', count: 1, method: { by: 'known', volumeMl, plusMinusPct: 5 } }],
  }
  return {
    ...mouldInputOf(draft),
    id,
    find: null,
    revision: 1,
    kind: mouldKindOf(draft.facts, draft.volume),
    cavityMl: volumeMl,
    plusMinusMl: volumeMl / 20,
    volumeProvenance: { kind: 'measured' },
    thinnestMm: null,
    photos: [],
    history: { casts: 0, last: null, damages: [] },
    ...change,
  }
}
