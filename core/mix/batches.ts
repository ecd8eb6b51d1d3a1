import { MOST_VOLUME_ML } from '../bounds'
import type { Issue } from '../errors'
import { bowlVolumeMl, weighOutForVolume, weighOutFromMasses, type WeighOut } from './batch'
import type { MixInput } from './properties'

export interface Bowl {
  /** Its place on the shelf, where it has one. */
  bowlId?: string
  name: string
  volumeMl: number
  tareG: number
}

/** How a job is cut into bowls. */
export type BatchSplit =
  /** As few as bowl, hands and scale allow. */
  /** In as few as the bowl takes by its rule; `toTheRim`: in as few as it holds at all. */
  | { by: 'need'; toTheRim?: boolean }
  /** At least so many equal bowls: less to sift and to pour at a time. */
  | { by: 'bowls'; count: number }
  /** Coats and pours one on the other: the next is mixed when the last thickens. */
  | { by: 'layers'; layers: { name: string; sharePct: number }[] }
  /** Powder weighed into equal bags beforehand, each for so many casts. */
  | { by: 'casts'; castsPerBag: number }
  /** Powder that comes in bags of one weight, none of them opened for a part. */
  | { by: 'whole_bags'; bagPowderG: number }

/** What the bench can do at once. */
export interface BatchLimits {
  split: BatchSplit
  /** The bowl to mix in; null: whichever is large enough. */
  bowl: Bowl | null
  /** How fast slurry gets into the moulds, ml a minute; null: fast enough. */
  pourRateMlMin: number | null
  /** Most the scale takes at once, tare included, g; null: enough. */
  scaleCapacityG: number | null
}

export interface Batch {
  name: string
  waterG: number
  powderG: number
  fillerG: number
  slurryMl: number
  /** Smallest bowl for it, ml. */
  bowlMl: number
  /** How full the chosen bowl gets, 0–1; undefined without one, or where it would run over, which an issue says. */
  bowlFill?: number
  /** Times each goes on the scale. */
  weighings: { water: number; powder: number }
  start: 'first' | 'at_once' | 'when_it_thickens'
}

export type BatchIssueCode =
  | 'bowl_too_small'
  | 'no_time_to_pour'
  | 'bag_outlasts_working_time'
  | 'too_many_batches'
  | 'bowl_of_nothing'
  | 'bowl_too_large'
  | 'slightly_more_than_bags'
  | 'scale_too_small'
  | 'scale_too_coarse'

export interface BatchPlan {
  batches: Batch[]
  /** The whole job, all batches together. */
  total: WeighOut
  /** What made it more than one bowl. */
  because: 'bowl' | 'working_time' | 'layers' | 'bags' | undefined
  /** Most slurry in one go, ml; Infinity where nothing limits it. */
  largestMl: number
  issues: Issue<BatchIssueCode>[]
}

export const MAX_BATCHES = 60

/** Slurry a bowl takes: its water no more than a third of it, the slurry clear of the rim. */
export function largestForBowlMl(bowlVolMl: number, waterMlPerSlurryMl: number): number {
  return bowlVolMl * Math.min(1 / (3 * waterMlPerSlurryMl), 0.7)
}

/** Past the rule a bowl can be filled so far and still be stirred at all, of what it holds (estimate). */
const RIM = 0.9

/** Slurry a bowl takes against the rule, ml: whoever does it knows that it may run over. */
export const mostForBowlMl = (bowlVolMl: number): number => RIM * bowlVolMl

export interface Pace {
  /** Early end of the working time, from mid-sprinkle, s. */
  workLowS: number
  soakS: number
  stirS: number
  /** Time to sift, s for each g of plaster, and never less than `leastSiftS`. */
  siftSPerG: number
  leastSiftS: number
}

/**
 * Most slurry that can be poured before it thickens: what is left of three quarters of the early working time once it
 * is sifted, soaked and stirred, at the pouring rate. Zero where nothing is left.
 */
export function largestForTimeMl(pace: Pace, pourRateMlMin: number, slurryMlPerG: number): number {
  const rateMlS = pourRateMlMin / 60
  const spareS = 0.75 * pace.workLowS - pace.soakS - pace.stirS
  const quick = rateMlS * (spareS - pace.leastSiftS / 2)
  if (quick <= 0) return 0
  if ((quick / slurryMlPerG) * pace.siftSPerG <= pace.leastSiftS) return quick
  // Sifting takes longer the more there is: s = rate · (spare − sift·s / 2v), solved for s.
  return (rateMlS * spareS) / (1 + (rateMlS * pace.siftSPerG) / (2 * slurryMlPerG))
}

/**
 * Most slurry for one bowl whose own powder is sifted, soaked and stirred: the working time hangs on how long sifting
 * takes, and that on the bowl. A smaller bowl has less time, so the search comes down from the whole job and stops at
 * the largest that fits itself.
 */
function largestInTime(
  paceOf: (powderG: number) => Pace,
  pourRateMlMin: number,
  slurryMlPerG: number,
  wholeG: number,
): number {
  let powderG = wholeG
  let largestMl = Infinity
  for (let round = 0; round < 20; round++) {
    largestMl = largestForTimeMl(paceOf(powderG), pourRateMlMin, slurryMlPerG)
    const next = Math.min(wholeG, largestMl / slurryMlPerG)
    if (Math.abs(next - powderG) < 1e-4 * wholeG) break
    powderG = next
  }
  return largestMl
}

/** Rounding to the scale may move a bowl's ratio this far before it is said. */
const COARSE = 0.03

/** Cuts a mass into whole steps of the scale in given shares, so that the parts add up to it. */
function share(totalG: number, weights: readonly number[], divisionG: number): number[] {
  const sum = weights.reduce((a, b) => a + b, 0)
  const steps = Math.round(totalG / divisionG)
  const exact = weights.map((w) => (steps * w) / sum)
  const whole = exact.map(Math.floor)
  const left = steps - whole.reduce((a, b) => a + b, 0)
  const byRest = exact.map((x, i) => [x - whole[i]!, i] as const).sort((a, b) => b[0] - a[0] || a[1] - b[1])
  for (const [, i] of byRest.slice(0, left)) whole[i]! += 1
  // Summing steps of 0.1 would leave crumbs behind the comma.
  return whole.map((n) => Math.round(n * divisionG * 1e6) / 1e6)
}

function weighingsOf(massG: number, tareG: number, capacityG: number | null): number {
  if (capacityG === null || massG <= 0) return 1
  const roomG = capacityG - tareG
  return roomG > 0 ? Math.max(1, Math.ceil(massG / roomG - 1e-9)) : 1
}

interface Group {
  name: string
  weight: number
  start: Batch['start']
}

const issue = (
  code: BatchIssueCode,
  severity: Issue['severity'],
  actual: number,
  limit: number,
  unit: string,
): Issue<BatchIssueCode> => ({ code, severity, path: 'batching', actual, limit, unit })

/** Whole bags; one past the limit stands for any number beyond it. */
const bagCount = (bags: number) => Math.min(MAX_BATCHES + 1, Math.max(1, Math.ceil(bags - 1e-9)))

/** How much of a bag too much is still "slightly": such a set is better made a little smaller or thinner. */
const SLIGHTLY = 0.12

function totalAndGroups(
  input: MixInput,
  job: Job,
  split: BatchSplit,
): { total: WeighOut; groups: Group[]; issues: Issue<BatchIssueCode>[] } {
  const asked = weighOutForVolume(input, job.cavityMl, job.sparePct, job.divisionG)
  const bags = (n: number, eachPowderG: number) => {
    const eachWaterG = Math.max(
      job.divisionG,
      Math.round(
        (eachPowderG * (input.consistency / 100 - (input.plaster.admixWaterRatio ?? 0))) / job.divisionG,
      ) * job.divisionG,
    )
    return {
      total: weighOutFromMasses(input, n * eachPowderG, n * eachWaterG),
      groups: Array.from({ length: n }, (_, i): Group => ({
        name: `Bag ${i + 1}`,
        weight: 1,
        start: 'at_once',
      })),
    }
  }
  switch (split.by) {
    case 'bowls':
      return {
        total: asked,
        groups: Array.from(
          { length: Math.min(MAX_BATCHES + 1, Math.max(1, split.count)) },
          (_, i): Group => ({
            name: '',
            weight: 1,
            start: i === 0 ? 'first' : 'at_once',
          }),
        ),
        issues: [],
      }
    case 'need':
      return { total: asked, groups: [{ name: '', weight: 1, start: 'first' }], issues: [] }
    case 'layers':
      return {
        total: asked,
        groups: split.layers.map((l) => ({ name: l.name, weight: l.sharePct, start: 'when_it_thickens' })),
        issues: [],
      }
    case 'casts': {
      const n = bagCount(job.casts / split.castsPerBag)
      const eachG = (asked.powderG * Math.min(split.castsPerBag, job.casts)) / job.casts
      return {
        ...bags(n, Math.max(job.divisionG, Math.ceil(eachG / job.divisionG - 1e-9) * job.divisionG)),
        issues: [],
      }
    }
    case 'whole_bags': {
      const inBags = asked.powderG / split.bagPowderG
      const n = bagCount(inBags)
      const over = inBags - Math.floor(inBags + 1e-9)
      const slightly = inBags > 1 && over > 1e-6 && over <= SLIGHTLY
      return {
        ...bags(n, split.bagPowderG),
        issues: slightly
          ? [
              issue(
                'slightly_more_than_bags',
                'warning',
                asked.powderG,
                Math.floor(inBags + 1e-9) * split.bagPowderG,
                'g',
              ),
            ]
          : [],
      }
    }
  }
}

interface Job {
  cavityMl: number
  sparePct: number
  /** How many pieces it fills. */
  casts: number
  divisionG: number
}

/** Where a job is cut, before its masses are shared out in steps of the scale. */
function cutJob(input: MixInput, job: Job, limits: BatchLimits, paceOf: (powderG: number) => Pace) {
  const { split, bowl, pourRateMlMin } = limits
  const { total, groups, issues } = totalAndGroups(input, job, split)
  const perG = total.properties.slurryMlPerG
  const byBowl = !bowl
    ? Infinity
    : split.by === 'need' && split.toTheRim
      ? mostForBowlMl(bowl.volumeMl)
      : largestForBowlMl(bowl.volumeMl, total.waterG / total.slurryMl)
  const sumWeights = groups.reduce((sum, g) => sum + g.weight, 0)
  const byTime = pourRateMlMin === null ? Infinity : largestInTime(paceOf, pourRateMlMin, perG, total.powderG)
  if (byTime === 0) issues.push(issue('no_time_to_pour', 'warning', 0, 1, 'ml'))
  const largestMl = Math.min(byBowl, byTime > 0 ? byTime : Infinity)
  // Bags are weighed before anyone knows the bowl: they are not cut again, only warned about.
  const mayCut = split.by !== 'casts' && split.by !== 'whole_bags'
  const cut = groups.flatMap((g) => {
    const slurryMl = (total.slurryMl * g.weight) / sumWeights
    const n = mayCut ? Math.max(1, Math.ceil(slurryMl / largestMl - 1e-9)) : 1
    return Array.from({ length: Math.min(n, MAX_BATCHES + 1) }, (_, i) => ({
      ...g,
      weight: g.weight / n,
      start: i === 0 ? g.start : ('at_once' as const),
    }))
  })
  return { total, cut, sumWeights, byBowl, byTime, largestMl, mayCut, issues }
}

/**
 * The largest bowl of a job, as `planBatches` cuts it but not rounded to the scale: enough to draw a curve with.
 * Undefined where it would be more bowls than anybody mixes.
 */
export function largestBowl(
  input: MixInput,
  job: Job,
  limits: BatchLimits,
  paceOf: (powderG: number) => Pace,
): { powderG: number; slurryMl: number } | undefined {
  const { total, cut, sumWeights } = cutJob(input, job, limits, paceOf)
  if (cut.length > MAX_BATCHES) return undefined
  const share = Math.max(...cut.map((g) => g.weight)) / sumWeights
  return { powderG: total.powderG * share, slurryMl: total.slurryMl * share }
}

/**
 * The job in bowls: equal shares of each layer or of the whole, as few as the bowl and the working time allow. Water,
 * plaster and filler of the batches add up to the total exactly, in steps of the scale.
 * Pure.
 */
export function planBatches(
  input: MixInput,
  job: Job,
  limits: BatchLimits,
  paceOf: (powderG: number) => Pace,
): BatchPlan {
  const { bowl, pourRateMlMin, scaleCapacityG, split } = limits
  const { total, cut, byBowl, byTime, largestMl, mayCut, issues } = cutJob(input, job, limits, paceOf)
  const perG = total.properties.slurryMlPerG
  if (cut.length > MAX_BATCHES) {
    issues.push(issue('too_many_batches', 'error', cut.length, MAX_BATCHES, 'batches'))
    return { batches: [], total, because: undefined, largestMl, issues }
  }
  const weights = cut.map((g) => g.weight)
  const [waters, powders, fillers] = [total.waterG, total.powderG, total.fillerG].map((massG) =>
    share(massG, weights, job.divisionG),
  ) as [number[], number[], number[]]
  const sumOf = (parts: number[]) => parts.reduce((a, b) => a + b, 0)
  const tareG = bowl?.tareG ?? 0
  const batches = cut.map((g, i): Batch => {
    const [waterG, powderG] = [waters[i]!, powders[i]!]
    const slurryMl = powderG * perG
    return {
      name: g.name,
      waterG,
      powderG,
      fillerG: fillers[i]!,
      slurryMl,
      bowlMl: bowlVolumeMl(waterG, slurryMl),
      bowlFill: bowl && slurryMl <= bowl.volumeMl ? slurryMl / bowl.volumeMl : undefined,
      weighings: {
        water: weighingsOf(waterG, tareG, scaleCapacityG),
        powder: weighingsOf(powderG, tareG, scaleCapacityG),
      },
      start: i === 0 ? 'first' : g.start,
    }
  })
  const empty = batches.find((b) => b.waterG <= 0 || b.powderG <= 0)
  if (empty) {
    issues.push(issue('bowl_of_nothing', 'error', job.divisionG, total.powderG / batches.length, 'g'))
    return { batches: [], total, because: undefined, largestMl, issues }
  }
  const biggest = batches.reduce((a, b) => (b.slurryMl > a.slurryMl ? b : a))
  if (biggest.slurryMl > MOST_VOLUME_ML) {
    issues.push(issue('bowl_too_large', 'error', biggest.slurryMl, MOST_VOLUME_ML, 'ml'))
    return { batches: [], total, because: undefined, largestMl, issues }
  }
  if (bowl && biggest.bowlMl > bowl.volumeMl * 1.001)
    issues.push(issue('bowl_too_small', 'warning', bowl.volumeMl, biggest.bowlMl, 'ml'))
  if (!mayCut && pourRateMlMin !== null && byTime > 0) {
    const inTimeMl = largestForTimeMl(paceOf(biggest.powderG), pourRateMlMin, perG)
    if (biggest.slurryMl > inTimeMl * 1.001)
      issues.push(issue('bag_outlasts_working_time', 'warning', biggest.slurryMl, inTimeMl, 'ml'))
  }
  const reached = (b: Batch) => 100 * (b.waterG / b.powderG + (input.plaster.admixWaterRatio ?? 0))
  const off = (b: Batch) => Math.abs(reached(b) / input.consistency - 1)
  const coarsest = batches.reduce((a, b) => (off(b) > off(a) ? b : a))
  if (off(coarsest) > COARSE)
    issues.push(
      issue(
        'scale_too_coarse',
        'warning',
        reached(coarsest),
        input.consistency,
        'parts of water to 100 of plaster',
      ),
    )
  if (scaleCapacityG !== null && scaleCapacityG <= tareG)
    issues.push(issue('scale_too_small', 'warning', scaleCapacityG, tareG, 'g'))
  const because =
    split.by === 'layers' && split.layers.length > 1
      ? 'layers'
      : (split.by === 'casts' || split.by === 'whole_bags') && batches.length > 1
        ? 'bags'
        : batches.length > 1
          ? byBowl <= byTime || byTime === 0
            ? 'bowl'
            : 'working_time'
          : undefined
  return {
    batches,
    // Rounded shares add up to the rounded whole.
    total: { ...weighOutFromMasses(input, sumOf(powders), sumOf(waters)), fillerG: sumOf(fillers) },
    because,
    largestMl,
    issues,
  }
}
