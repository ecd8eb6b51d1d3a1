import { differenceInCalendarDays, parseISO } from 'date-fns'
import { learnFrom, priorAfter, type Prior } from '#core/learn'
import { blend, plasterProperties, type Addition, type PlasterClassId, type WaterKind } from '#core/plaster'
import type { PlasterOrigins, PourPlan } from '#core/pour'
import {
  bagDoubt,
  labelOfClass,
  learnBag,
  propertiesOfCard,
  sourcesOfCard,
  type BagEvidence,
  type BagState,
} from '#core/stock'
import type { BagCard, BagInput, PlasterCard } from '~~/shared/stock'
import type { SeenOf } from '~/parts/learn/shares'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'

/** A plaster as it is chosen: a class or a card, perhaps out of a bag, perhaps with something in it. */
export interface PlasterPick {
  /** `class:<id>` or a plaster card's id. */
  plasterKey: string
  /** Empty: no bag in particular. */
  bagId: string
  additions: readonly Addition[]
  /** The water as it comes; soft where it is not given. */
  water?: WaterKind
}

export interface Shelf {
  plasters: readonly PlasterCard[]
  bags: readonly BagCard[]
  /** What pours have shown; nothing where nobody has asked. */
  seenOf?: SeenOf
}

/** What bags of the same plaster showed that were seen of last before this one. */
function bagBefore(bag: BagCard, { bags, seenOf }: Shelf, nowMs: number): Prior | undefined {
  const others = bags
    .filter((b) => b.plasterId === bag.plasterId && b.id !== bag.id)
    .map((b) => seenOf?.(`bag:${b.id}`, 'set_time'))
    .filter((found) => found !== undefined && found.seen.length > 0)
  const lastMs = (found: (typeof others)[number]) => Math.max(...found!.seen.map((s) => s.atMs))
  const last = others.sort((a, b) => lastMs(b) - lastMs(a))[0]
  return last && priorAfter('set_time', learnFrom('set_time', last.seen, nowMs, last.choice))
}

/** Everything seen of a bag's pace. */
export function bagEvidence(bag: BagCard, shelf: Shelf, nowMs: number): BagEvidence {
  const found = shelf.seenOf?.(`bag:${bag.id}`, 'set_time')
  const before = bagBefore(bag, shelf, nowMs)
  return { tests: bag.spoonTests, ...found, ...(before ? { before } : {}) }
}

/** How a bag is kept and since when it is open, at a moment. */
export function bagStateOf(bag: Pick<BagCard, 'keeping' | 'openedOn'>, nowMs: number): BagState {
  // A day is a day here, not in Greenwich.
  const openDays =
    bag.openedOn === null ? null : Math.max(0, differenceInCalendarDays(nowMs, parseISO(bag.openedOn)))
  return { keeping: bag.keeping, openDays }
}

/** Bags of a card that still hold something, the oldest first: it is used up first. */
export function bagsOf(plasterKey: string, bags: readonly BagCard[]): BagCard[] {
  return bags.filter((b) => b.plasterId === plasterKey && !b.usedUp)
}

/**
 * The plan's plaster: the card's values, the bag's knowledge of its setting time over them, and what goes in worked in
 * last. Undefined where the card is gone.
 */
export function plasterOf(pick: PlasterPick, shelf: Shelf, nowMs: number): PourPlan['plaster'] | undefined {
  const additions = pick.additions.length > 0 ? { additions: [...pick.additions] } : {}
  if (pick.plasterKey.startsWith('class:')) {
    const classId = pick.plasterKey.slice(6) as PlasterClassId
    return {
      name: PLASTER_CLASS_WORDS[classId],
      properties: blend(plasterProperties(classId), pick.additions, pick.water),
      origins: originsOf(labelOfClass(classId)),
      ...additions,
    }
  }
  const card = shelf.plasters.find((c) => c.id === pick.plasterKey)
  if (!card) return undefined
  const base = propertiesOfCard(card.label)
  const origins = originsOf(card.label)
  const bag = bagsOf(card.id, shelf.bags).find((b) => b.id === pick.bagId)
  if (!bag)
    return {
      name: card.name,
      plasterId: card.id,
      properties: blend(base, pick.additions, pick.water),
      origins,
      ...additions,
    }
  const state = bagStateOf(bag, nowMs)
  const known = learnBag(base, state, bagEvidence(bag, shelf, nowMs), nowMs)
  const properties = {
    ...base,
    halfHydrationMin: Math.min(240, Math.max(2, base.halfHydrationMin * known.factor)),
    timeSigmaLn: known.sigmaLn,
  }
  return {
    name: card.name,
    plasterId: card.id,
    properties: blend(properties, pick.additions, pick.water),
    origins:
      known.pours > 0
        ? { ...origins, setTime: { kind: 'calibrated', pours: known.pours } }
        : known.tests > 0
          ? { ...origins, setTime: { kind: 'spoon_tests', tests: known.tests } }
          : origins,
    bag: {
      bagId: bag.id,
      name: bag.name,
      boughtG: bag.boughtG,
      price: bag.price,
      keeping: state.keeping,
      ...(state.openDays === null ? {} : { openDays: state.openDays }),
      setFactor: known.factor,
    },
    ...additions,
  }
}

function originsOf(label: PlasterCard['label']): PlasterOrigins {
  const sources = sourcesOfCard(label)
  const of = (what: (typeof sources)[number]['what']) => sources.find((s) => s.what === what)!.provenance
  return {
    consistency: of('consistency'),
    setTime: of('half_set'),
    expansion: of('expansion'),
    strength: of('strength'),
  }
}

/** Whether the bag itself gives reason to doubt the clock. */
export function doubtOf(bag: BagCard, nowMs: number): 'none' | 'old' | 'damp' {
  return bagDoubt(bagStateOf(bag, nowMs))
}

/** A bag as it is kept, without what follows from its pours. */
export function bagInputOf(bag: BagCard): BagInput {
  const { plasterId, name, boughtG, price, openedOn, keeping, scoop, counted, usedUp, note } = bag
  return { plasterId, name, boughtG, price, openedOn, keeping, scoop, counted, usedUp, note }
}
