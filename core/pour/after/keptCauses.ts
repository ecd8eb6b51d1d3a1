import type { CauseId } from '../../finish'
import type { HeedSubject } from '../events'
import type { PourFacts } from '../facts'
import { faultsOf } from './faults'
import type { PourPlan } from '../plan/plan'

/** A cause that somebody accepted, and nobody has called mended since. */
export interface KeptCause {
  subject: HeedSubject
  cause: CauseId
  atMs: number
}

/** Whose a cause is: of the mould and how it is filled, of the way it is mixed, of the bag. */
type Whose = 'mould' | 'recipe' | 'bag'
const WHOSE: Record<CauseId, Whose> = {
  too_thin: 'recipe',
  too_thick: 'recipe',
  soak_short: 'recipe',
  sifted_fast: 'recipe',
  stirred_little: 'recipe',
  stirred_long: 'recipe',
  stirred_hard: 'recipe',
  past_working: 'recipe',
  poured_high: 'mould',
  no_tap: 'mould',
  air_in_form: 'mould',
  layers_late: 'mould',
  leaked: 'mould',
  mixed_short: 'mould',
  water_film: 'mould',
  dirty_bowl: 'recipe',
  old_bag: 'bag',
  salts: 'recipe',
  cold: 'recipe',
  ground_cold: 'mould',
  colour_split: 'recipe',
  additions_weaken: 'recipe',
  moved: 'mould',
  release_missing: 'mould',
  release_smeared: 'mould',
  release_thick: 'mould',
  undercut_forced: 'mould',
  thin_section: 'mould',
  uneven_wall: 'mould',
  early_out: 'mould',
  mould_flaws: 'mould',
  mould_colours: 'mould',
  gel_shrank: 'mould',
  gel_softens: 'mould',
  dried_hot: 'mould',
  dried_uneven: 'mould',
  knocked: 'mould',
}
/** With whom it stays where there is none of that. */
const ELSE: Record<Whose, readonly Whose[]> = {
  mould: ['mould', 'recipe', 'bag'],
  recipe: ['recipe', 'mould', 'bag'],
  bag: ['bag', 'recipe', 'mould'],
}

function subjectsByKind(
  { mould, recipe, plaster }: PourPlan,
  isMeant: (member: number) => boolean,
): Record<Whose, HeedSubject[]> {
  const moulds = (mould.members ?? []).flatMap((m, i) => (m.mouldId && isMeant(i) ? [m.mouldId] : []))
  return {
    mould: [...new Set(moulds)].map((id): HeedSubject => `mould:${id}`),
    recipe: recipe ? [`recipe:${recipe.recipeId}`] : [],
    bag: plaster.bag ? [`bag:${plaster.bag.bagId}`] : [],
  }
}

/** What of a plan may have something to be reminded of: its moulds, its recipe, its bag. */
export function heedSubjects(plan: PourPlan): HeedSubject[] {
  return Object.values(subjectsByKind(plan, () => true)).flat()
}

/**
 * With what a cause found in this pour stays: the moulds of its faulty pieces, its recipe or its bag, whichever it is of and
 * there is. Empty where none of them has a card.
 */
export function staysWith(facts: Pick<PourFacts, 'plan' | 'live' | 'pieces'>, cause: CauseId): HeedSubject[] {
  const faulty = new Set(faultsOf(facts).flatMap((f) => f.pieces))
  const members = new Set(facts.pieces.filter((p) => faulty.has(p.number)).map((p) => p.member))
  // Where the casts are not told apart, or nothing is noted, it may be any of them.
  const isAny = members.size === 0 || members.has(undefined)
  const found = subjectsByKind(facts.plan, (member) => isAny || members.has(member))
  return ELSE[WHOSE[cause]].map((kind) => found[kind]).find((s) => s.length > 0) ?? []
}

/** Causes accepted in this pour, each with what it stays with; what was called mended since is left out. */
export function keptCauses(facts: Pick<PourFacts, 'plan' | 'live' | 'pieces'>): KeptCause[] {
  const kept = new Map<string, KeptCause>()
  for (const { body, occurredAtMs: atMs } of facts.live) {
    if (body.type === 'cause_kept')
      for (const subject of staysWith(facts, body.cause))
        kept.set(`${subject} ${body.cause}`, { subject, cause: body.cause, atMs })
    if (body.type === 'cause_mended') kept.delete(`${body.subject} ${body.cause}`)
  }
  return [...kept.values()]
}
