import { describeCavity, mouldKindOf } from '#core/mould'
import type { MouldCard, MouldInput } from '~~/shared/moulds'

/**
 * A mould's card until the workshop has answered: what follows from its description is worked out here.
 * @throws where it holds nothing: nobody can have saved such a one.
 */
export function mouldMeanwhile(
  input: MouldInput,
  head: { id: string; revision: number },
  known?: MouldCard,
): MouldCard {
  const described = describeCavity(input.volume)
  if (!described.ok) throw new Error('a mould that holds nothing')
  const { volumeMl, plusMinusMl, provenance, thinnestMm } = described.finding
  return {
    photos: [],
    history: { casts: 0, last: null, damages: [] },
    ...known,
    ...input,
    ...head,
    kind: mouldKindOf(input.facts, input.volume),
    cavityMl: volumeMl,
    plusMinusMl,
    volumeProvenance: provenance,
    thinnestMm: thinnestMm ?? null,
    find: input.find === undefined ? (known?.find ?? null) : input.find,
  }
}
