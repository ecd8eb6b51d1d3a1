import { DOUBTFUL_Z, timeToFractionS, type DryingForecast, type NextWeighing } from '../drying'
import type { DemouldForecast } from '../demould'
import {
  forecastSet,
  type CueSeen,
  type EvidenceOf,
  type LearntForecast,
  type ProbeSeries,
  type SetForecast,
  type SetProblem,
} from '../forecast'
import type { SettingForecast } from '../setting'
import { MS_PER, celsiusFromFahrenheit } from '../units'
import { pieceDrying, weighNext } from './drying'
import { filledMs, type BatchFacts } from './bowl'
import { foldPour, type PourFacts, type RecordedWeighing } from './facts'
import { isInPlay } from './pieces'
import { handOf, type PourEvent, type TempChannel } from './events'
import type { KeptPlan } from './plan/kept'
import { flowOf, type Flow } from './plan/mix/mixing'
import { setProblemOf } from './plan/setProblem'

/** What one bowl's slurry is expected to do. */
export type BowlForecast = SetForecast & { flow: Flow }

/** What the models make of a pour's facts. Plain data: it is made in a worker as well as here. */
export interface PourForecast {
  bowls: BowlForecast[]
  /** What was learnt of the bucket in hand from what was seen of it; undefined while nothing was. */
  learnt: Omit<LearntForecast, keyof SetForecast> | undefined
  drying: (DryingForecast & DriedTogether & { weighNext: NextWeighing | undefined }) | undefined
}

/** Of several pieces, which ones a forecast of drying is of: those that are weighed together, and take longest. */
export interface DriedTogether {
  pieces: number[]
}

export type BatchOutlook = BatchFacts & BowlForecast

/** Facts and forecast of a pour together: what every screen goes by. */
export interface PourOutlook extends Omit<PourFacts, 'batches' | 'inHand' | 'drying'> {
  batches: BatchOutlook[]
  inHand: BatchOutlook
  /** Of the bowl in hand. */
  setting: SettingForecast
  /** Of the piece: it waits for the bowl that is ready last. s since the mid-sprinkle of the bowl in hand. */
  demould: DemouldForecast
  learnt: PourForecast['learnt']
  /** How sure the demould times are: σ of their logarithm. */
  sigmaLn: number
  drying:
    | (Omit<NonNullable<PourFacts['drying']>, 'weighings'> & {
        weighings: JudgedWeighing[]
        forecast: DryingForecast & DriedTogether
        /** When weighing tells most. */
        weighNext: NextWeighing | undefined
      })
    | undefined
}

/** A weighing, and whether it lies further out than the scale and the model explain: worth a question. */
export interface JudgedWeighing extends RecordedWeighing {
  doubtful: boolean
}

/** What the setting of a bowl follows from. */
export function problemOf(facts: PourFacts, bowl: BatchFacts): SetProblem {
  const isPoured = filledMs(bowl.doneAtMs) !== undefined
  return setProblemOf(facts.plan, bowl.settingInput, bowl.pouredAtS, isPoured)
}

/** What was seen and felt of the bowl in hand, s since its mid-sprinkle. */
export function cuesOf({ live, settingStartMs }: Pick<PourFacts, 'live' | 'settingStartMs'>): CueSeen[] {
  if (settingStartMs === undefined) return []
  return live.flatMap(({ id, body, occurredAtMs, who, whoId }): CueSeen[] =>
    body.type === 'touch' && occurredAtMs > settingStartMs
      ? [
          {
            id,
            cue: body.cue,
            answer: !body.seen ? 'not_yet' : body.already ? 'already' : 'now',
            atS: (occurredAtMs - settingStartMs) / 1000,
            by: handOf({ who, whoId }),
          },
        ]
      : [],
  )
}

/** Temperatures that somebody read off and kept, once it was in the mould: as good as a slow thermometer. */
function readingsKept({ live, settingStartMs }: PourFacts, of: 'core' | 'surface'): ProbeSeries {
  const place = of === 'core' ? 'slurry' : 'surface'
  return {
    of,
    knownBy: place,
    readings: live.flatMap(({ body, occurredAtMs }) =>
      settingStartMs !== undefined && body.type === 'temperature' && body.place === place
        ? [{ timeS: (occurredAtMs - settingStartMs) / 1000, tempC: body.tempC }]
        : [],
    ),
  }
}

/** What a thermometer said in a bowl's slurry or piece; `null` where its channel answered with nothing. */
export interface ProbeTrace {
  device: string
  channel: TempChannel
  batch: number
  readings: { atMs: number; tempC: number | null }[]
}

/** What somebody said of each thermometer in this pour that was doubted, the last of each. */
export function toldOf(
  { live }: Pick<PourFacts, 'live'>,
  { device, channel }: Pick<ProbeTrace, 'device' | 'channel'>,
) {
  const event = live.findLast(
    ({ body }) => body.type === 'thermometer_told' && body.device === device && body.channel === channel,
  )
  return event?.body.type === 'thermometer_told' ? { ...event, is: event.body.is } : undefined
}

/** What the thermometers said, as it counts: in °C, and without what was read where it was not in this piece. */
export function tracesThatCount(facts: Pick<PourFacts, 'live'>, traces: readonly ProbeTrace[]): ProbeTrace[] {
  return traces.map((trace) => {
    const told = toldOf(facts, trace)
    if (!told || told.is === 'right') return trace
    const readings =
      told.is === 'fahrenheit'
        ? trace.readings.map((r) => ({
            ...r,
            tempC: r.tempC === null ? null : celsiusFromFahrenheit(r.tempC),
          }))
        : trace.readings.filter((r) => r.atMs > told.occurredAtMs)
    return { ...trace, readings }
  })
}

/** What was read of the bowl in hand; a thermometer's is known by its device and channel, what was typed by its place. */
function seriesOf(facts: PourFacts, traces: readonly ProbeTrace[]): ProbeSeries[] {
  const startMs = facts.settingStartMs
  if (startMs === undefined) return []
  const heard = tracesThatCount(facts, traces)
    .filter((t) => t.batch === facts.batch)
    .map(({ device, channel, readings }) => ({
      knownBy: `${device} ${channel}`,
      ...(toldOf(facts, { device, channel })?.is === 'right' ? { trusted: true } : {}),
      readings: readings.map((r) => ({ timeS: (r.atMs - startMs) / 1000, tempC: r.tempC })),
    }))
  const typed = [readingsKept(facts, 'core'), readingsKept(facts, 'surface')]
  return [...heard, ...typed].filter((p) => p.readings.length > 0)
}

/** Everything seen of the bowl in hand; undefined until it is in the mould. */
export function evidenceOf(facts: PourFacts, traces: readonly ProbeTrace[]): EvidenceOf | undefined {
  const { settingStartMs, inHand } = facts
  if (settingStartMs === undefined || filledMs(inHand.doneAtMs) === undefined) return undefined
  return { problem: problemOf(facts, inHand), cues: cuesOf(facts), probes: seriesOf(facts, traces) }
}

const plain = ({ setting, demould, green, marks }: SetForecast): SetForecast => ({
  setting,
  demould,
  green,
  marks,
})

/** Whether nobody is up at a moment: core knows no time zone. */
export type IsNight = (atMs: number) => boolean

/** Weighings of the same pieces together, in order; one lot without any where nothing was weighed. */
function weighedTogether({ pieces }: PourFacts, weighings: readonly RecordedWeighing[]) {
  const lots = new Map<string, { pieces: number[]; weighings: RecordedWeighing[] }>()
  for (const w of weighings) {
    const lot = lots.get(w.pieces.join()) ?? { pieces: w.pieces, weighings: [] }
    lot.weighings.push(w)
    lots.set(w.pieces.join(), lot)
  }
  if (lots.size > 0) return [...lots.values()]
  const left = pieces.filter(isInPlay)
  return [{ pieces: (left.length > 0 ? left : pieces).map((p) => p.number), weighings: [] }]
}

/** Two weighings tell a pace; one alone tells a mass. */
const TELL_A_PACE = 2

/**
 * The drying of pieces that are out, by everything weighed and felt of them. Pieces weighed apart dry each at a pace of its
 * own: it waits for the slowest of those that tell theirs.
 */
export function dryingForecastOf(
  facts: PourFacts,
  { weighings, legs, felt, targetLeft, startMs }: NonNullable<PourFacts['drying']>,
  isNight?: IsNight,
): NonNullable<PourForecast['drying']> {
  const { plan, mix } = facts
  const lots = weighedTogether(facts, weighings).map((lot) => {
    const of = facts.pieces.filter((p) => lot.pieces.includes(p.number))
    const cavityMl =
      of.length === facts.pieces.length ? undefined : of.reduce((sum, p) => sum + p.cavityMl, 0)
    return { ...lot, forecast: pieceDrying(plan, mix, lot.weighings, legs, felt, cavityMl).forecast }
  })
  const told = lots.filter((l) => l.weighings.length >= TELL_A_PACE)
  const dryS = (lot: (typeof lots)[number]) => timeToFractionS(lot.forecast, targetLeft).mid
  const slowest = (told.length > 0 ? told : lots.slice(-1)).reduce((a, b) => (dryS(b) > dryS(a) ? b : a))
  const z = new Map(
    lots.flatMap((l) => l.weighings.map((w, i) => [w.eventId, l.forecast.z[i] ?? 0] as const)),
  )
  const isUp = isNight && ((atS: number) => !isNight(startMs + atS * MS_PER.s))
  return {
    ...slowest.forecast,
    z: weighings.map((w) => z.get(w.eventId)!),
    pieces: slowest.pieces,
    weighNext: weighNext(plan, slowest.forecast, slowest.weighings, targetLeft, isUp),
  }
}

/**
 * The forecast of a pour. Without anything learnt it is what bag, ratio, temperatures and stirring say.
 * @param learnt of the bowl in hand, where something was seen of it.
 * @param isNight a weighing is not asked for then.
 */
export function forecastPour(facts: PourFacts, learnt?: LearntForecast, isNight?: IsNight): PourForecast {
  const bowls = facts.batches.map((bowl, i): BowlForecast => {
    const set = learnt && i === facts.batch ? plain(learnt) : forecastSet(problemOf(facts, bowl))
    const { consistency } = bowl.settingInput
    return { ...set, flow: flowOf(facts.plan, consistency, set.setting.timeS.work_end.mid, bowl.pouredAtS) }
  })
  const { pace, prior, next, moved, contradicting, probeFaults, farOff } = learnt ?? {}
  return {
    bowls,
    learnt:
      pace && prior
        ? {
            pace,
            prior,
            next,
            moved,
            contradicting: contradicting ?? [],
            probeFaults: probeFaults ?? [],
            farOff,
          }
        : undefined,
    drying: facts.drying && dryingForecastOf(facts, facts.drying, isNight),
  }
}

/** The piece waits for the bowl that is ready last: its advice, as seconds of the bowl in hand. */
function pieceDemould(facts: PourFacts, bowls: readonly BowlForecast[]): DemouldForecast {
  const startMs = facts.settingStartMs ?? 0
  const shifted = bowls.map(({ demould }, i) => {
    const own = facts.batches[i]!.settingStartMs
    if (own === undefined) return i === facts.batch ? demould : undefined
    const byS = (own - startMs) / 1000
    const { low, mid, high } = demould.strongEnoughS
    return {
      ...demould,
      strongEnoughS: { low: low + byS, mid: mid + byS, high: high + byS },
      recommendedS: demould.recommendedS + byS,
      looksHoldS: demould.looksHoldS && demould.looksHoldS + byS,
    }
  })
  const known = shifted.filter((d) => d !== undefined)
  return known.reduce((a, b) => (b.recommendedS > a.recommendedS ? b : a), bowls[facts.batch]!.demould)
}

/** Facts with what the models make of them. The forecast may be one of a moment ago, of as many bowls. */
export function outlookOf(facts: PourFacts, forecast: PourForecast): PourOutlook {
  const batches = facts.batches.map((bowl, i): BatchOutlook => ({ ...bowl, ...forecast.bowls[i]! }))
  const inHand = batches[facts.batch]!
  const { drying } = facts
  return {
    ...facts,
    batches,
    inHand,
    setting: inHand.setting,
    demould: pieceDemould(facts, forecast.bowls),
    learnt: forecast.learnt,
    sigmaLn: forecast.learnt?.pace.sigmaLn ?? inHand.setting.sigmaLn,
    drying: drying &&
      forecast.drying && {
        ...drying,
        weighings: drying.weighings.map((w, i) => ({
          ...w,
          doubtful: Math.abs(forecast.drying!.z[i] ?? 0) > DOUBTFUL_Z,
        })),
        forecast: forecast.drying,
        weighNext: forecast.drying.weighNext,
      },
  }
}

/** Whether a forecast is of these facts' shape: of as many bowls, and of a drying piece where it dries. */
export function fits(facts: PourFacts, forecast: PourForecast): boolean {
  return (
    forecast.bowls.length === facts.batches.length &&
    (facts.drying === undefined) === (forecast.drying === undefined)
  )
}

/** Folded and forecast at once, from plan and events alone: for what looks at a pour once. */
export function outlookFrom(plan: KeptPlan, events: readonly PourEvent[], revision = 1): PourOutlook {
  const facts = foldPour(plan, events, revision)
  return outlookOf(facts, forecastPour(facts))
}
