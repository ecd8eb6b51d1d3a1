import { plasterClass, type PlasterClassId } from '../plaster'
import { consistencyBySifting } from './schools'

/**
 * What a bowl looks like on the way from water to a piece that has set, as shares that can be drawn. Heights are shares of
 * what the bowl is full to when everything is in it.
 */
export interface BowlLook {
  /** Up to where it is wet: water, with the powder that sank in it. */
  level: number
  /** Up to where powder lies under the water; as `level` where its pores are all that is left of the water. */
  bed: number
  /** Share of the surface that powder stands dry on. */
  dryShare: number
  /** How far the dry powder stands over the wet, at its highest. */
  heap: number
  /** Lumps left, of those it began with. */
  lumps: number
  /** How much of the surface still shines, 0–1. */
  gloss: number
  /** How deep a trail stays that is drawn through it: 0 closes at once, 1 stands. */
  trail: number
  /** Water that comes to stand on top. */
  bleed: number
}

export interface MixedBowl {
  classId: PlasterClassId
  /** All the water of it, and all the powder it is to get. */
  waterG: number
  powderG: number
}

/**
 * How far powder has taken the water up, 1 where the pores of its bed just hold it: the same number that sifting to a look
 * goes by (`consistencyBySifting`). Below it water stands clear over the powder; above it powder stays dry.
 */
export const takenUp = ({ classId, waterG, powderG }: MixedBowl): number =>
  (consistencyBySifting(classId, 'lake_bed').mid * powderG) / (100 * waterG)

/** Islands stand from here on, and the whole surface is dry at 1 (estimates; by the looks casters sift to). */
const FIRST_ISLANDS = 0.8

const dryOf = (up: number) => Math.min(1, Math.max(0, (up - FIRST_ISLANDS) / (1 - FIRST_ISLANDS)))

/** How far `at` has come from one moment to another, 0–1; where the other is no later it is there. */
const shareOf = (at: number, from: number, to: number) =>
  to <= from ? 1 : Math.min(1, Math.max(0, (at - from) / (to - from)))

const STILL = { dryShare: 0, heap: 0, lumps: 0, gloss: 1, trail: 0, bleed: 0 }

/** @param share of the powder that is in, 0–1. */
export function siftingLook(bowl: MixedBowl, share: number): BowlLook {
  const { settledDensityKgM3: bed, particleDensityKgM3: particle } = plasterClass(bowl.classId)
  const ml = (powderG: number, densityKgM3: number) => (1000 * powderG) / densityKgM3
  const inG = share * bowl.powderG
  const up = takenUp({ ...bowl, powderG: inG })
  // What finds no water lies on top as loose as it came out of the sieve: about as loose as it settles.
  const wetG = up > 1 ? inG / up : inG
  const wetMl = bowl.waterG + ml(wetG, particle.value)
  const fullMl = bowl.waterG + ml(bowl.powderG, particle.value)
  const level = wetMl / fullMl
  const heapMl = ml(inG - wetG, bed.value)
  return {
    ...STILL,
    level,
    bed: Math.min(level, ml(wetG, bed.value) / fullMl),
    dryShare: dryOf(up),
    // A heap is a cone: three times as high in the middle as spread out.
    heap: (3 * heapMl) / fullMl + 0.05 * dryOf(up),
    gloss: 1 - dryOf(up),
  }
}

/**
 * What stands dry is wet through from below, with the root of time, as water climbs in pores.
 * @param share of the soak that is over, 0–1.
 */
export function soakingLook(bowl: MixedBowl, share: number): BowlLook {
  const sifted = siftingLook(bowl, 1)
  const left = 1 - Math.sqrt(Math.min(1, Math.max(0, share)))
  // What is wet through no longer stands over the water: it is of the bed.
  const risen = (1 - sifted.level) * (1 - left)
  return {
    ...sifted,
    level: sifted.level + risen,
    bed: sifted.bed + risen,
    dryShare: sifted.dryShare * left,
    heap: sifted.heap * left,
    gloss: 1 - sifted.dryShare * left,
  }
}

/** Each third of the stirring leaves about a third of the lumps (estimate). @param share of it that is over. */
export function stirringLook(share: number): BowlLook {
  const done = Math.min(1, Math.max(0, share))
  return { ...STILL, level: 1, bed: 1, lumps: done === 1 ? 0 : Math.exp(-3.3 * done) }
}

/**
 * Once it is stirred it thickens, until a trail stands; then its gloss goes, and what a thin mix cannot hold stands on top.
 * @param atS of the bowl's own clock, s. @param timesS when on it stirring ends, it can no longer be poured, and it has its
 * initial set, in this order.
 */
export function settingLook(
  bowl: MixedBowl,
  atS: number,
  timesS: { stirred: number; workEnd: number; initialSet: number },
): BowlLook {
  const { stirred, workEnd, initialSet } = timesS
  const thick = shareOf(atS, stirred, workEnd)
  const set = shareOf(atS, Math.max(stirred, workEnd), initialSet)
  const up = takenUp(bowl)
  return {
    ...STILL,
    level: 1,
    bed: 1,
    trail: thick ** 2,
    gloss: 1 - set,
    // Only what stands still parts from its water, and only as far as the bed would not hold it.
    bleed: 0.3 * set * Math.max(0, FIRST_ISLANDS - up),
  }
}
