import { UNKNOWN_PLACE, type DryingPace, type DryingSpot } from '#core/drying'
import { learnFrom } from '#core/learn'
import type { PlaceCard } from '~~/shared/learning'
import type { SeenOf } from './shares'

/** A place as a plan or a move keeps it, with what its pours have shown. */
export function spotOf(place: PlaceCard, seenOf: SeenOf | undefined, nowMs: number): DryingSpot {
  const { id: placeId, name, air, nightAir } = place
  const found = seenOf?.(`place:${placeId}`, 'drying')
  const learnt = found && !found.choice.off ? learnFrom('drying', found.seen, nowMs, found.choice) : undefined
  const pace: (DryingPace & { pours: number }) | undefined =
    learnt && learnt.pours > 0
      ? {
          meanLn: learnt.meanLn,
          sigmaLn: Math.min(UNKNOWN_PLACE.sigmaLn, learnt.nextSigmaLn),
          pours: learnt.pours,
        }
      : undefined
  return { placeId, name, air, ...(nightAir ? { nightAir } : {}), ...(pace ? { pace } : {}) }
}
