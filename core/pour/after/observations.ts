import type { LearntForecast } from '../../forecast'
import { UNKNOWN_PLACE } from '../../drying'
import { FACTOR, likelihoodOf, type FactorId, type Subject } from '../../learn'
import { bulkDensityOf } from '../../mix'
import { plasterClass } from '../../plaster'
import { filledMs } from '../bowl'
import { handOf } from '../events'
import type { PourFacts } from '../facts'
import { FIRST_SCOOP } from '../plan/mix/classValues'
import { dryingForecastOf, evidenceOf, tracesThatCount, type ProbeTrace } from '../outlook'

/** What one pour shows of one factor of one subject. */
export interface PourObservation {
  factor: FactorId
  subject: Subject
  atMs: number
  ratio: number
  sigmaLn: number
}

/** Of whom something could be learnt from this pour, whether or not enough was seen of it. */
export function subjectsOf(facts: PourFacts): Subject[] {
  const { plan, drying, live } = facts
  const sifted = live.find(({ body }) => body.type === 'sifted')
  const sifter = sifted && handOf(sifted)
  const [leg] = drying?.legs ?? []
  const { bag } = plan.plaster
  const bowlId = plan.batching?.bowl?.bowlId
  const checked = facts.batches.some((b) => b.inBowl.checked)
  const found: (Subject | undefined)[] = [
    bag && (`bag:${bag.bagId}` as const),
    bag && checked && plan.ratioMethod === 'by_volume' ? (`scoop:${bag.bagId}` as const) : undefined,
    checked && plan.ratioMethod === 'by_eye' && sifter ? (`person:${sifter}` as const) : undefined,
    leg?.spot.placeId ? (`place:${leg.spot.placeId}` as const) : undefined,
    bowlId && leftOverMl(facts) !== undefined ? (`bowl:${bowlId}` as const) : undefined,
  ]
  return found.filter((s) => s !== undefined)
}

/** What was over when the mould was full, less what it ran short of, ml; undefined where nobody measured either. */
function leftOverMl({ live }: PourFacts): number | undefined {
  const said = live.flatMap(({ body }) =>
    body.type === 'left_over' ? [body.volumeMl] : body.type === 'ran_short' ? [-body.missingMl] : [],
  )
  return said.length === 0 ? undefined : said.reduce((sum, ml) => sum + ml, 0)
}

/** How well one can read what is left in a bowl, as a share of the slurry. */
const READ_OFF_SIGMA = 0.02
/** A thermometer is seldom just where it gets hottest: share of the rise. */
const PROBE_PLACE_SIGMA = 0.08
/** It has to fall by as much to have passed its peak, K. */
const PAST_PEAK_K = 1

/** Whether the plan's setting time still holds what was worked into it of its bag, so that it can be taken out again. */
function knownSetFactor({ plan }: PourFacts): number | undefined {
  const { bag, origins } = plan.plaster
  if (bag?.setFactor !== undefined) return bag.setFactor
  return origins?.setTime.kind === 'spoon_tests' ? undefined : 1
}

type Found = Pick<PourObservation, 'ratio' | 'sigmaLn'> | undefined

/** What was seen of the set, against the card: the bag's own factor is taken out of the forecast again. */
function setTimeSeen(facts: PourFacts, learnt: LearntForecast | undefined): Found {
  const before = knownSetFactor(facts)
  const seen = learnt && likelihoodOf(learnt.pace, learnt.prior)
  return seen && before !== undefined
    ? { ratio: before * Math.exp(seen.meanLn), sigmaLn: seen.sigmaLn }
    : undefined
}

/** The highest that a thermometer in the piece read, where it has passed its peak, against the forecast at its pace. */
function heatSeen(
  facts: PourFacts,
  learnt: LearntForecast | undefined,
  traces: readonly ProbeTrace[],
): Found {
  if (!learnt || learnt.probeFaults.length > 0) return undefined
  const startC = facts.settingInput.mixTempC
  const peaks = tracesThatCount(facts, traces)
    .filter((t) => t.batch === facts.batch)
    .flatMap(({ readings }) => {
      const temps = readings.flatMap((r) => (r.tempC === null ? [] : [r.tempC]))
      const top = Math.max(...temps)
      return temps.length > 2 && temps.at(-1)! < top - PAST_PEAK_K ? [top] : []
    })
  const forecastK = learnt.marks.peakC - startC
  if (peaks.length === 0 || !(forecastK > 2)) return undefined
  const seenK = Math.max(...peaks) - startC
  return seenK > 1
    ? {
        ratio: ((facts.plan.learnt?.heat?.factor ?? 1) * seenK) / forecastK,
        sigmaLn: Math.hypot(PROBE_PLACE_SIGMA, 0.6 / seenK),
      }
    : undefined
}

/** The pace of drying where it stayed in one place; the pace that was expected there is taken out again. */
function dryingSeen(facts: PourFacts): Found {
  const { drying } = facts
  if (!drying || drying.legs.length !== 1 || drying.weighings.length < 2) return undefined
  const expected = drying.legs[0]!.spot.pace ?? UNKNOWN_PLACE
  const { speedFactor, sigmaLnSpeed, weighingsUsed } = dryingForecastOf(facts, drying)
  if (weighingsUsed < 2) return undefined
  const found = { meanLn: expected.meanLn + Math.log(speedFactor.mid), sigmaLn: sigmaLnSpeed }
  const seen = likelihoodOf(found, expected)
  return seen && { ratio: Math.exp(seen.meanLn), sigmaLn: seen.sigmaLn }
}

/** What a weighed slurry says of how the powder was measured: of the scoop's density, or of the hand that sifted. */
function checkedSeen(facts: PourFacts, method: 'by_volume' | 'by_eye'): Found {
  const { plan } = facts
  const checked = facts.batches.map((b) => b.inBowl.checked).find((c) => c !== undefined)
  if (!checked || plan.ratioMethod !== method) return undefined
  const sigmaLn = Math.max(0.02, Math.log(checked.high / checked.low) / 2.56)
  if (method === 'by_eye')
    return { ratio: ((plan.learnt?.sprinkled?.factor ?? 1) * checked.mid) / plan.consistency, sigmaLn }
  const { classId } = plan.plaster.properties
  const scoop = plan.scoop ?? FIRST_SCOOP
  const usual = plasterClass(classId).bulkDensityKgM3[scoop.packing].value
  const { value: takenKgM3 } = bulkDensityOf(classId, scoop)
  return { ratio: ((takenKgM3 / usual) * plan.consistency) / checked.mid, sigmaLn }
}

/** What the bowl really gave, against the volume of what was weighed into it. */
function yieldSeen(facts: PourFacts): Found {
  const overMl = leftOverMl(facts)
  const { actual, plan, lostMl } = facts
  if (overMl === undefined || !actual || filledMs(facts.doneAtMs) === undefined) return undefined
  const { cavityMl, plusMinusMl = 0 } = plan.mould
  const ratio = (cavityMl + overMl + lostMl) / actual.slurryMl
  return { ratio, sigmaLn: Math.hypot(READ_OFF_SIGMA, plusMinusMl / 1.28 / cavityMl) }
}

/**
 * What a pour shows of its bag, place, scoop, hands and bowl. Each thing seen feeds one factor: times of setting the bag's
 * pace, how hot it got its heat, weighings the place, a weighed slurry the scoop or the hand (and then the set is held
 * against the ratio it found), what was over the bowl.
 * @param learnt of the bowl in hand, where something was seen of its set.
 */
export function observationsOf(
  facts: PourFacts,
  learnt: LearntForecast | undefined,
  traces: readonly ProbeTrace[],
): PourObservation[] {
  const seen: Record<FactorId, Found> = {
    set_time: setTimeSeen(facts, learnt),
    heat: heatSeen(facts, learnt, traces),
    drying: dryingSeen(facts),
    scoop_density: checkedSeen(facts, 'by_volume'),
    sprinkled: checkedSeen(facts, 'by_eye'),
    slurry_yield: yieldSeen(facts),
  }
  const subjects = subjectsOf(facts)
  const atMs = facts.settingStartMs ?? facts.live[0]?.occurredAtMs ?? 0
  return (Object.keys(seen) as FactorId[]).flatMap((factor) => {
    const found = seen[factor]
    const subject = subjects.find((s) => s.startsWith(`${FACTOR[factor].of}:`))
    return found && subject ? [{ factor, subject, atMs, ...found }] : []
  })
}

/** Whether anything was seen of the set of the bowl in hand. */
export function hasSetEvidence(facts: PourFacts, traces: readonly ProbeTrace[]): boolean {
  const evidence = evidenceOf(facts, traces)
  return evidence !== undefined && evidence.cues.length + evidence.probes.length > 0
}
