import {
  ASKS,
  answersTo,
  askOf,
  diagnose,
  saidBy,
  signsAsked,
  type AskId,
  type CauseId,
  type Diagnosis,
  type Recalled,
  type RecordedSign,
  type SignReading,
  type SignReadings,
} from '../../finish'
import { describeCavity, letsGo, neededThicknessMm, type Preparation } from '../../mould'
import { ADDITIONS, checkAdditions, type AdditionId } from '../../plaster'
import { STIR_INTENSITY } from '../../setting'
import { MS_PER } from '../../units'
import type { EventBody } from '../events'
import { filledMs } from '../bowl'
import { wholeOf } from '../facts'
import { faultsOf } from './faults'
import type { BatchOutlook, PourOutlook } from '../outlook'
import { airTacticsOf, goesInAtOnce, preparationsOf, type PlanMember, type PourPlan } from '../plan/plan'

const yes = (happened: boolean | undefined): SignReading | undefined =>
  happened === undefined ? undefined : { value: happened ? 1 : 0 }
const plain = (value: number | undefined): SignReading | undefined =>
  value === undefined ? undefined : { value, actual: value }
const against = (actual: number | undefined, limit: number): SignReading | undefined =>
  actual === undefined ? undefined : { value: actual / limit, actual, limit }

const known = <T>(values: readonly (T | undefined)[]): T[] => values.filter((v) => v !== undefined)
/** Of several bowls the one that tells most. */
const least = (values: readonly (number | undefined)[]) =>
  known(values).length > 0 ? Math.min(...known(values)) : undefined
const most = (values: readonly (number | undefined)[]) =>
  known(values).length > 0 ? Math.max(...known(values)) : undefined

function spanS(fromMs: number | undefined, toMs: number | undefined): number | undefined {
  return fromMs === undefined || toMs === undefined ? undefined : Math.max(0, toMs - fromMs) / 1000
}

/** Of the bowls, the one whose figure lies furthest against its own limit. */
function furthest(found: readonly (SignReading | undefined)[]): SignReading | undefined {
  return known(found).reduce<SignReading | undefined>((a, b) => (a && a.value >= b.value ? a : b), undefined)
}

/**
 * Whether something of the preparation list was left out. A list that nobody ticked anything of tells nothing: many make a
 * mould ready without it.
 */
function leftUndone(facts: PourOutlook, of: readonly Preparation[]): boolean | undefined {
  const asked = preparationsOf(facts.plan).filter((p) => of.includes(p))
  const ticked = facts.live.flatMap(({ body }) => (body.type === 'prepared' ? [body.item] : []))
  if (asked.length === 0 || ticked.length === 0) return undefined
  return asked.some((p) => !ticked.includes(p))
}

function soakedS(facts: PourOutlook, { doneAtMs }: BatchOutlook): number | undefined {
  if (facts.plan.addingWay === 'kneaded') return undefined
  if (facts.steps.some((s) => s.id === 'soak'))
    return spanS(doneAtMs.sift ?? doneAtMs.start_sift, doneAtMs.soak)
  return doneAtMs.stir === undefined ? undefined : 0
}

function siftPace({ doneAtMs, planned, actual }: BatchOutlook): number | undefined {
  const s = spanS(doneAtMs.start_sift, doneAtMs.sift)
  return s === undefined ? undefined : (1000 * s) / (actual?.powderG ?? planned.powderG)
}

function tappedS(facts: PourOutlook): number | undefined {
  const filled = filledMs(facts.doneAtMs)
  const { tap, vibrate } = facts.doneAtMs
  if (filled === undefined || facts.step === 'tap' || facts.step === 'vibrate') return undefined
  const done = most([tap, vibrate])
  if (done !== undefined) return spanS(filled, done)
  // A step that nobody told of may have been done; one that was left out on purpose was not. Ways of filling that have no
  // tapping free the air otherwise.
  const isAsked = facts.steps.some((s) => s.id === 'tap' || s.id === 'vibrate')
  return isAsked || facts.plan.filling !== undefined ? undefined : 0
}

function trapsLeft(facts: PourOutlook): SignReading | undefined {
  const asked = airTacticsOf(facts.plan)
  if (facts.plan.mould.members === undefined) return undefined
  const done = new Set(facts.live.flatMap(({ body }) => (body.type === 'air_freed' ? [body.how] : [])))
  // Whichever bowl it was done with.
  if (facts.batches.some((b) => b.doneAtMs.face_coat !== undefined)) done.add('brush_coat')
  if (facts.batches.some((b) => b.doneAtMs.part_fill !== undefined)) done.add('part_fill')
  // A list that nobody ticked anything of tells nothing.
  if (asked.length > 0 && done.size === 0) return undefined
  const left = asked.filter((t) => !done.has(t)).length
  return { value: asked.length === 0 ? 0 : left / asked.length, actual: left, limit: asked.length }
}

/** Since the start of a bowl's setting, against one of its marks. */
function bowlAt(
  bowl: BatchOutlook,
  atMs: number | undefined,
  mark: 'work_end' | 'initial_set',
): SignReading | undefined {
  return against(spanS(bowl.settingStartMs, atMs), bowl.setting.timeS[mark].mid)
}

/** A bowl upon one that had set; scored, or with a bonding coat between, it holds all the same. */
function layerGaps(facts: PourOutlook): (SignReading | undefined)[] {
  if (facts.batches.some((b) => b.doneAtMs.bond_coat !== undefined)) return []
  return facts.batches
    .slice(1)
    .map((bowl, i) =>
      facts.batches[i]!.doneAtMs.roughen === undefined
        ? bowlAt(facts.batches[i]!, filledMs(bowl.doneAtMs), 'initial_set')
        : undefined,
    )
}

function cannotComeOut({ facts, volume }: PlanMember): boolean {
  const found = describeCavity(volume)
  return letsGo(facts, found.ok ? found.finding.undercutMm : undefined).some((o) => o.grade === 'stop')
}

const wasSaid = <T extends EventBody['type']>({ live }: PourOutlook, type: T) =>
  live.flatMap(({ body }) => (body.type === type ? [body as Extract<EventBody, { type: T }>] : []))

/**
 * The same pour as its faulty pieces saw it: the bowls that went into them, and their moulds. All of it where every piece has
 * something, or where each bowl went into every mould.
 */
function ofFaultyPieces(facts: PourOutlook): PourOutlook {
  const faulty = new Set(faultsOf(facts).flatMap((f) => f.pieces))
  const pieces = facts.pieces.filter((p) => faulty.has(p.number))
  if (pieces.length === 0 || pieces.length === facts.pieces.length) return facts
  const { plan, batches, live } = facts
  const members = plan.mould.members?.filter((_, i) => pieces.some((p) => p.member === i))
  const narrowed = {
    ...facts,
    pieces,
    plan: { ...plan, mould: { ...plan.mould, ...(members ? { members } : {}) } },
  }
  const bowls = new Set(pieces.flatMap((p) => p.bowls))
  if (pieces.some((p) => p.bowls.length === 0)) return narrowed
  // A bowl mixed for what was missing may have gone into any of them.
  const isOfThem = (batch: number) => bowls.has(batch) || batches[batch]?.topUp === true
  const theirs = batches.filter((_, i) => isOfThem(i))
  const filled = facts.pieces.filter((p) => p.bowls.some((b) => bowls.has(b)))
  narrowed.plan.mould.cavityMl = filled.reduce((sum, p) => sum + p.cavityMl, 0)
  return {
    ...narrowed,
    batches: theirs,
    actual: wholeOf(plan, theirs),
    lostMl: live.reduce(
      (sum, { body }) => sum + (body.type === 'leaked' && isOfThem(body.batch ?? 0) ? body.lostMl : 0),
      0,
    ),
  }
}

/** Whether the release did its work on some of them; undefined where nobody said. */
function grippedOf(facts: PourOutlook): boolean | undefined {
  const said = known(facts.pieces.map((p) => p.out?.gripped))
  return said.length === 0 ? undefined : said.some(Boolean)
}

/** Of all moulds, the piece that is furthest below what its purpose needs where it is thinnest. */
function thinnestOf({ members = [], thicknessMm }: PourPlan['mould']): SignReading | undefined {
  const shares = members.map(({ thinnestMm, purpose }) =>
    against(thinnestMm ?? thicknessMm, neededThicknessMm(purpose) ?? MEANT_TO_BREAK_MM)!,
  )
  return shares.reduce<SignReading | undefined>((a, b) => (a && a.value <= b.value ? a : b), undefined)
}

/** Below this even what is meant to break does so too soon, mm (estimate). */
const MEANT_TO_BREAK_MM = 4

const UNEVEN = 2.5

/**
 * Thickest against thinnest of a form that is uneven as it is drawn; one that is drawn even says nothing of how it came
 * out. Where there is one form only and both are known.
 */
function wallSpread({ mould }: PourOutlook['plan']): SignReading | undefined {
  const [member, ...others] = mould.members ?? []
  if (!member || member.thinnestMm === null || others.length > 0) return undefined
  return mould.thicknessMm < UNEVEN * member.thinnestMm
    ? undefined
    : against(mould.thicknessMm, member.thinnestMm)
}

/** Which of the warnings about what goes in say that it weakens the piece. */
const WEAKENS = new Set(['retarder_weakens', 'surface_stays_soft', 'addition_beyond_known'])

/** An answer, and the event that it was given with. */
export interface Answered {
  said: Recalled
  eventId: string
}

/** What was told afterwards, by question; the last answer to each. */
function recalledOf({ live }: Pick<PourOutlook, 'live'>): Map<AskId, Answered> {
  return new Map(
    live.flatMap(({ id: eventId, body }) =>
      body.type === 'recalled' ? [[askOf(body.said), { said: body.said, eventId }] as const] : [],
    ),
  )
}

/**
 * What a pour's record has to say for and against each cause; what it does not know is left out, but for what somebody
 * told when it was asked for.
 */
export function signsOf(facts: PourOutlook): SignReadings {
  const recalled = [...recalledOf(facts).values()].map((a) => saidBy(a.said))
  return Object.assign({}, ...recalled, recordedSigns(facts)) as SignReadings
}

/** Whether a film or soap belongs between this mould and the cast. */
const takesFilm = (plan: PourPlan) =>
  preparationsOf(plan).some((p) => p === 'release_film' || p === 'soap_coats')

/** What was recorded while it happened. */
function recordedSigns(facts: PourOutlook): SignReadings {
  const { plan, batches, actual, learnt, doneAtMs, settingInput, drying } = facts
  const { properties, bag } = plan.plaster
  const stirred = batches.filter((b) => b.doneAtMs.stir !== undefined)
  const effortS = stirred.map(({ settingInput: s }) => s.stirS * STIR_INTENSITY[s.stirManner])
  const filled = filledMs(doneAtMs) !== undefined
  const outMs = least(facts.pieces.map((p) => p.out?.atMs))
  const isOut = outMs !== undefined
  const ratio = against(actual?.consistency, properties.useConsistency)
  const unsure = actual && { value: settingInput.ratioSigmaLn }
  const heldS = spanS(facts.settingStartMs, outMs)
  const members = plan.mould.members ?? []
  const pace =
    learnt && learnt.pace.sigmaLn < 0.9 * learnt.prior.sigmaLn ? Math.exp(learnt.pace.meanLn) : undefined
  const inGel = plan.mould.kind === 'alginate' ? spanS(filledMs(doneAtMs), outMs) : undefined
  const inGround = plan.mould.kind === 'ground'
  const added = (id: AdditionId) => plan.plaster.additions?.find((a) => a.id === id)?.pct ?? 0
  const cautions = checkAdditions(plan.plaster.additions ?? [], plan.water)
  const groundC = plan.mouldTempC ?? plan.air.tempC
  const found: Record<RecordedSign, SignReading | undefined> = {
    ratio_over: ratio,
    ratio_under: ratio,
    ratio_unsure_thin: unsure,
    ratio_unsure_thick: unsure,
    soaked: plain(least(batches.map((b) => soakedS(facts, b)))),
    sift_pace: goesInAtOnce(plan) ? undefined : plain(least(batches.map(siftPace))),
    stirred_effort_low: plain(least(effortS)),
    stirred_effort_high: plain(most(effortS)),
    stirred_until: furthest(batches.map((b) => bowlAt(b, b.doneAtMs.stir, 'work_end'))),
    stirred_manner: stirred.length > 0 ? { value: STIR_INTENSITY[settingInput.stirManner] } : undefined,
    full_at: furthest(batches.map((b) => bowlAt(b, filledMs(b.doneAtMs), 'work_end'))),
    ready_at: furthest(
      batches.map((b) =>
        filledMs(b.doneAtMs) === undefined ? bowlAt(b, b.doneAtMs.stir, 'work_end') : undefined,
      ),
    ),
    tapped: plain(tappedS(facts)),
    traps_left: filled ? trapsLeft(facts) : undefined,
    next_bowl_at: furthest(layerGaps(facts)),
    // What nobody told of may have happened all the same.
    leaked_share: filled && facts.lostMl > 0 ? against(facts.lostMl, plan.mould.cavityMl) : undefined,
    slurry_share: against(actual?.slurryMl, plan.mould.cavityMl),
    ran_short: filled && wasSaid(facts, 'ran_short').length > 0 ? yes(true) : undefined,
    not_drained: yes(leftUndone(facts, ['drain_and_dry'])),
    set_fast: pace === undefined ? undefined : { value: pace },
    set_slow: pace === undefined ? undefined : { value: pace },
    bag_open: plain(bag?.openDays),
    bag_damp: yes(bag?.keeping === undefined ? undefined : bag.keeping === 'damp'),
    salty_water: yes(plan.water === 'sea' || added('salt') > 0),
    salty_ground: yes(inGround),
    mix_temp: filled ? plain(settingInput.mixTempC) : undefined,
    mould_temp: filled && !inGround ? plain(groundC) : undefined,
    ground_temp: filled && inGround ? plain(groundC) : undefined,
    liquid_colour: plain(added('liquid_paint')),
    pigment_over: against(added('pigment'), ADDITIONS.pigment.caution!.abovePct),
    weakening_added: yes(cautions.some((c) => WEAKENS.has(c.code))),
    release_undone: yes(leftUndone(facts, ['seal_pores', 'soap_coats', 'release_film'])),
    gripped: yes(grippedOf(facts)),
    film_used: members.length > 0 ? yes(takesFilm(plan)) : undefined,
    film_taken: members.length > 0 ? yes(takesFilm(plan)) : undefined,
    undercut_rigid: members.length > 0 ? yes(members.some(cannotComeOut)) : undefined,
    thinnest: thinnestOf(plan.mould),
    wall_spread: wallSpread(plan),
    out_at: against(heldS, facts.demould.recommendedS),
    mould_damaged: isOut && wasSaid(facts, 'mould_damage').length > 0 ? yes(true) : undefined,
    mould_not_looked_at: yes(leftUndone(facts, ['wash_and_look', 'pick_out_crumbs'])),
    mould_unsealed: yes(leftUndone(facts, ['seal_pores'])),
    gel_not_fresh: yes(leftUndone(facts, ['same_day'])),
    hours_in_gel: inGel === undefined ? undefined : plain((inGel * 1000) / MS_PER.h),
    drying_temp: plain(most((drying?.legs ?? []).map((l) => l.spot.air.tempC))),
    one_face_dry: drying && yes(drying.legs.every((l) => l.lies === 'one_face')),
  }
  return Object.fromEntries(Object.entries(found).filter(([, reading]) => reading !== undefined))
}

/** Materials that give off colour: rust, tannin, clay (common practice, no source). */
const COLOURING = new Set(['metal', 'wood', 'wet_clay', 'sand_soil', 'card'])

/** What this pour cannot have had, whatever is seen. */
function impossibleFor({ plan, batches }: PourOutlook): Set<CauseId> {
  const none = new Set<CauseId>()
  const members = plan.mould.members ?? []
  if (batches.length < 2) none.add('layers_late')
  if (plan.mould.kind !== 'alginate') none.add('gel_softens').add('gel_shrank')
  if (plan.mould.kind !== 'ground') none.add('ground_cold')
  if (members.length > 0 && members.every((m) => m.facts.undercut === 'none' && !cannotComeOut(m)))
    none.add('undercut_forced')
  if (members.length > 0 && !members.some((m) => COLOURING.has(m.facts.material))) none.add('mould_colours')
  if (plan.leftoverOf) none.add('dirty_bowl')
  return none
}

/** Why a pour's pieces came out as they were noted, by their own record: what is well speaks for nothing. */
export function diagnosePour(facts: PourOutlook): Diagnosis {
  const theirs = ofFaultyPieces(facts)
  return diagnose(kindsOf(facts), signsOf(theirs), impossibleFor(theirs))
}

const kindsOf = (facts: PourOutlook) => faultsOf(facts).map((f) => f.kind)

/** Something the record leaves out, and what it would change to know it. */
export interface Asked {
  ask: AskId
  /** By how much an answer is expected to move the chance of the cause it moves most, 0–1. */
  worth: number
  /** What somebody answered. */
  answered: Answered | undefined
}

/** A question that moves no chance by as much settles nothing. */
const LEAST_ASKED = 0.03

/** What of these questions makes no sense of such a pour; the others do where their signs are not on record. */
const ASK_FITS: { [A in AskId]?: (facts: PourOutlook) => boolean } = {
  sifted: ({ plan }) => !goesInAtOnce(plan),
  soaked: ({ plan }) => plan.addingWay !== 'kneaded',
  air: ({ plan }) => airTacticsOf(plan).length > 0,
  gel: ({ plan }) => plan.mould.kind === 'alginate',
  ground: ({ plan }) => plan.mould.kind === 'ground',
  mould_dry: ({ plan }) => plan.mould.kind !== 'ground',
  mould_whole: ({ plan }) => plan.mould.kind !== 'ground',
  sealed: ({ plan }) => preparationsOf(plan).includes('seal_pores'),
  release: ({ plan }) => plan.mould.members === undefined || takesFilm(plan),
  bowl: ({ plan }) => plan.leftoverOf === undefined,
}

/**
 * What to ask whoever was there, the most telling first: questions about what the record leaves out, whose answer would move
 * the chance of a cause of these faults. Those that were answered stay, so that an answer can be taken back.
 */
export function asksOf(facts: PourOutlook): Asked[] {
  const kinds = kindsOf(facts)
  if (kinds.length === 0) return []
  const theirs = ofFaultyPieces(facts)
  const recorded = recordedSigns(theirs)
  const answers = recalledOf(facts)
  const impossible = impossibleFor(theirs)
  const chancesWith = (more: SignReadings) =>
    new Map(
      diagnose(kinds, { ...signsOf(theirs), ...more, ...recorded }, impossible).causes.map((c) => [
        c.cause,
        c.chance,
      ]),
    )
  const now = chancesWith({})
  return ASKS.flatMap((ask): Asked[] => {
    const open = signsAsked(ask).some((sign) => recorded[sign] === undefined)
    if (!open || ASK_FITS[ask]?.(theirs) === false) return []
    const answered = answers.get(ask)
    const then = answersTo(ask).map((answer) => chancesWith(saidBy(answer)))
    // An answer that speaks for a cause is as likely as the cause: what is far-fetched is not worth a question.
    const moves = [...now].map(([cause, chance]) => {
      const chances = then.map((t) => t.get(cause)!)
      return chance * (Math.max(...chances) - chance) + (1 - chance) * (chance - Math.min(...chances))
    })
    const worth = Math.max(0, ...moves)
    return answered || worth >= LEAST_ASKED ? [{ ask, worth, answered }] : []
  }).sort((a, b) => b.worth - a.worth)
}
