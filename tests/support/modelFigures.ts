import { createHash } from 'node:crypto'
import { writeFileSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { diceOf } from '../../devices/dice'
import { SettingPiece } from '../../devices/probeModel'
import { DRY_TARGETS, EXPOSURES } from '../../core/drying'
import { learnPace, type CueSeen, type LearntForecast } from '../../core/forecast'
import { AIR_TRAPS, MOULD_MATERIALS, PURPOSES, usualFacts, type VolumeMethod } from '../../core/mould'
import {
  FILLING_WAYS,
  actBefore,
  aheadOf,
  asksOf,
  bowlByRecord,
  bowlLook,
  compareSchools,
  conditionsOf,
  consistencySpan,
  diagnosePour,
  dryingAhead,
  evaluatePlan,
  evidenceOf,
  fixesFor,
  foldPour,
  forecastPour,
  followWays,
  keepPlan,
  keptCauses,
  leftoverNow,
  observationsOf,
  outlookFrom,
  planMould,
  problemIf,
  refusalsOf,
  remediesFor,
  seamOf,
  signsOf,
  stirringOf,
  summarisePour,
  tradeOffs,
  upkeepOf,
  usualTimeS,
  viewPour,
  type PourOutlook,
  type PourPlan,
} from '../../core/pour'
import { PLASTER_CLASS_IDS, type PlasterClassId } from '../../core/plaster'
import { DEMO_PLACES, mixedIn, plan, type MakePlan } from '../../server/demo/shed'
import { DEMO_MOULDS } from '../../server/demo/moulds'
import { DEMO_PLASTERS } from '../../server/demo/plasters'
import { demoPours } from '../../server/demo/pours'
import {
  DAY,
  HOUR,
  demouldedAgo,
  run,
  settingDueIn,
  toEvents,
  weighings,
  type Timed,
} from '../../server/demo/timed'
import { testPlan } from '../unit/plans'
import { partFigures } from './modelParts'

/** A moment of no meaning that everything is dated from. */
const NOW_MS = Date.UTC(2026, 3, 1)
const THROWN = 30

const UUID = /[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}/g

/** To five digits: what the order of a sum changes is not told. */
function plain(value: unknown): unknown {
  if (typeof value === 'number') {
    const asTime = value > 1e11 ? value - NOW_MS : value
    return Number.isFinite(asTime) ? Number(asTime.toPrecision(5)) : String(value)
  }
  if (typeof value === 'string') return value.replace(UUID, 'id')
  if (Array.isArray(value) || value instanceof Float64Array) return Array.from(value, plain)
  if (value instanceof Map || value instanceof Set) return plain([...value])
  if (value && typeof value === 'object')
    return Object.fromEntries(Object.entries(value).map(([key, of]) => [key, plain(of)]))
  return value
}
const sumOf = (value: unknown) =>
  createHash('sha256')
    .update(JSON.stringify(plain(value)) ?? '')
    .digest('hex')
    .slice(0, 8)

interface Job {
  name: string
  of: PourPlan
  timed: Timed[]
}

/** What stands at one moment stands in the order of its ids: theirs must not change from run to run. */
const idOf = (n: number) => `00000000-0000-4000-8000-${String(n).padStart(12, '0')}`
const idsOf = <Key extends string>(of: Record<Key, unknown>) =>
  Object.fromEntries(Object.keys(of).map((key, i) => [key, idOf(i)])) as Record<Key, string>

/** The shed's own pours: as far as each has come there. */
function shedJobs(): Job[] {
  const ids = { plasterIds: idsOf(DEMO_PLASTERS), bagIds: idsOf(DEMO_PLASTERS), placeIds: idsOf(DEMO_PLACES) }
  const make: MakePlan = (...args) => plan(idsOf(DEMO_MOULDS), ids, ...args)
  return demoPours(make).map(({ of, timed }) => ({ name: of.piece, of, timed }))
}

const VOLUMES: VolumeMethod[] = [
  { by: 'known', volumeMl: 640, plusMinusPct: 5 },
  { by: 'shape', shape: { kind: 'box', lengthMm: 210, widthMm: 140, depthMm: 28 } },
  { by: 'shape', shape: { kind: 'cylinder', diameterMm: 90, depthMm: 120 } },
  { by: 'shape', shape: { kind: 'frustum', topDiameterMm: 120, bottomDiameterMm: 60, depthMm: 90 } },
  { by: 'shape', shape: { kind: 'half_round', lengthMm: 160, diameterMm: 70, depthMm: 30 } },
]

/** Jobs of every class, mould and way, thrown by dice: what no caster of the shed happens to do. */
function thrownJobs(): Job[] {
  const dice = diceOf(2411)
  const between = (low: number, high: number) => low + (high - low) * dice()
  const any = <T>(of: readonly T[]): T => of[Math.floor(dice() * of.length)]!
  return Array.from({ length: THROWN }, (_, i): Job => {
    const classId: PlasterClassId = PLASTER_CLASS_IDS[i % PLASTER_CLASS_IDS.length]!
    const material = any(MOULD_MATERIALS)
    const count = any([1, 1, 1, 4])
    const described = {
      mouldId: `mould-${i}`,
      name: `Thrown ${i}`,
      count,
      purpose: any(PURPOSES),
      facts: {
        ...usualFacts(material),
        airTraps: [any(AIR_TRAPS)],
        undercut: any(['none', 'slight', 'deep'] as const),
      },
      volume: {
        parts: [{ role: 'add' as const, count: 1, method: any(VOLUMES) }],
        cavities: 1,
        check: null,
        trust: 'parts' as const,
      },
      thicknessMm: Math.round(between(8, 90)),
    }
    const base = testPlan(classId)
    const { consistencyLow, consistencyHigh } = base.plaster.properties
    const of = testPlan(classId, {
      piece: described.name,
      mould: planMould([described]),
      consistency: Math.round(between(consistencyLow * 0.97, consistencyHigh * 1.03) * 10) / 10,
      ratioMethod: any(['weighed', 'by_volume', 'by_eye'] as const),
      scoop: { measureMl: 250, packing: any(['sifted', 'scooped', 'tapped'] as const), weighedKgM3: null },
      siftStage: any(['islands', 'lake_bed', 'mountain'] as const),
      addingWay: any(['sifted', 'tipped_in', 'kneaded'] as const),
      filling: any(FILLING_WAYS),
      stirManner: any(['gentle', 'hand', 'drill'] as const),
      sparePct: any([0, 5, 10, 20]),
      spill: [{ mouldId: 'spill', name: 'Pucks', cavityMl: 45 }],
      waterTempC: Math.round(between(4, 38)),
      powderTempC: Math.round(between(4, 28)),
      soakS: any([30, 60, 120, 240]),
      stirS: any([30, 90, 120, 300, 600]),
      air: {
        tempC: Math.round(between(2, 36)),
        rhPct: any([25, 50, 70, 92]),
        speedMS: any([0, 0.1, 0.8, 2.5]),
      },
      dryingExposure: any(EXPOSURES),
      dryTarget: any(DRY_TARGETS),
      scaleDivisionG: any([1, 1, 5, 20]),
      ...(dice() < 0.3 ? { batching: mixedIn() } : {}),
      ...(dice() < 0.2 ? { sun: any(['hazy', 'full'] as const) } : {}),
      ...(dice() < 0.2 ? { hands: 2 } : {}),
      ...(dice() < 0.3 ? { taps: { coldTempC: 12, hotTempC: 40, targetTempC: any([8, 20, 39]) } } : {}),
      ...(dice() < 0.2 ? { water: any(['hard', 'sea'] as const) } : {}),
      ...(dice() < 0.2
        ? {
            learnt: {
              heat: { factor: 1.1, sigmaLn: 0.08, pours: 3 },
              slurryYield: { factor: 0.97, sigmaLn: 0.03, pours: 4 },
            },
          }
        : {}),
    })
    const outS = 5 * DAY
    const timed: Timed[] =
      i % 3 === 0
        ? run(
            of,
            'Ann',
            keepPlan(of).kept.steps.findLast((s) => s.id !== 'demould' && s.id !== 'dry')!.id,
            10 * 60,
          )
        : [
            ...demouldedAgo(of, 'Ann', outS),
            ...weighings(of, 'Ann', outS, [0.3 * HOUR, 1.1 * DAY, 2.4 * DAY]),
            ...(i % 3 === 1
              ? ([[-DAY, 'Ann', { type: 'finished', verdict: 'usable', reason: '' }]] as Timed[])
              : []),
          ]
    return { name: described.name, of, timed }
  })
}

/** So thin and cold that it never warms: a thermometer in it tells nothing. */
function coldJob(): Job {
  const { mould } = testPlan()
  const of = testPlan('pop', {
    piece: 'A thin one in the cold',
    mould: { ...mould, kind: 'ground', thicknessMm: 4 },
    waterTempC: 5,
    powderTempC: 5,
    mouldTempC: 4,
    air: { tempC: 5, rhPct: 80, speedMS: 2 },
  })
  return { name: of.piece, of, timed: settingDueIn(of, 'Ann', 3600) }
}

/** What is asked of a plan that nobody has begun. */
function ofPlan(of: PourPlan): Record<string, unknown> {
  const evaluation = evaluatePlan(of)
  if (!evaluation.ok) return { evaluatePlan: evaluation.issues, refusalsOf: refusalsOf(of) }
  const { outcome } = evaluation
  const { problem } = outcome
  const forecast = { marks: outcome.heat, setting: outcome.setting, demould: outcome.demould }
  const conditions = conditionsOf(problem, forecast, outcome.wetMassG)
  return {
    evaluatePlan: evaluation,
    refusalsOf: refusalsOf(of),
    remediesFor: remediesFor(of, outcome),
    compareSchools: compareSchools(of, undefined),
    tradeOffs: [consistencySpan(of), tradeOffs(of, 6)],
    seamOf: seamOf(of, outcome),
    conditions: [conditions, actBefore(problem, of, conditions)],
    problemIf: problemIf(problem, of, { waterTempC: 30, stirS: 90, sizeMm: 40, roomTempC: 8 }),
  }
}

/** What is asked of a pour at a moment. */
function ofMoment(facts: PourOutlook, nowMs: number): Record<string, unknown> {
  const view = viewPour(facts, nowMs)
  return {
    outlook: facts,
    viewPour: view,
    aheadOf: view.status === 'running' ? aheadOf(facts, view, nowMs) : undefined,
    bowlLook: bowlLook(facts, nowMs),
    stirringOf: [stirringOf(facts, nowMs), usualTimeS(facts)],
    fixesFor: fixesFor(facts, bowlByRecord(facts), nowMs),
    followWays: followWays(facts),
    leftoverNow: leftoverNow(facts, nowMs),
    dryingAhead: dryingAhead(facts, nowMs),
    signs: [signsOf(facts), asksOf(facts), diagnosePour(facts), keptCauses(facts)],
    upkeepOf: upkeepOf(facts),
  }
}

/**
 * What was felt of it at the planned times and a tenth later, a thermometer of another piece in its slurry, and one that lies
 * beside it.
 */
function learntOf(facts: PourOutlook): LearntForecast | undefined {
  const startMs = facts.settingStartMs
  if (startMs === undefined) return undefined
  const { classId } = facts.plan.plaster.properties
  const piece = new SettingPiece(classId, facts.plan.consistency, facts.plan.air.tempC, 20, 400, 1.1)
  const readings = Array.from({ length: 30 }, (_, i) => {
    piece.step(60)
    return { atMs: startMs + (400 + 60 * (i + 1)) * 1000, tempC: piece.tempC }
  })
  const aside = readings.map(({ atMs }, i) => ({ atMs, tempC: facts.plan.air.tempC + 1 / (i + 1) }))
  const evidence = evidenceOf(facts, [
    { device: 'probe', channel: 't1', batch: facts.batch, readings },
    { device: 'probe', channel: 't2', batch: facts.batch, readings: aside },
  ])
  if (!evidence) return undefined
  const { initial_set, final_set } = facts.setting.timeS
  const cues: CueSeen[] = [
    { id: 'gloss', cue: 'gloss_gone', answer: 'now', atS: 1.1 * initial_set.mid, by: 'Ann' },
    { id: 'nail', cue: 'thumbnail_no_dent', answer: 'not_yet', atS: 0.9 * final_set.mid, by: 'Ann' },
  ]
  return learnPace({ ...evidence, cues }, 1.1 * initial_set.mid)
}

function ofJob({ of, timed }: Job): Record<string, unknown> {
  const kept = keepPlan(of)
  const events = toEvents(NOW_MS, timed).map((e, i) => ({ ...e, id: idOf(i) }))
  const moments = new Map<string, unknown[]>()
  const look = (facts: PourOutlook, nowMs: number) => {
    for (const [key, value] of Object.entries(ofMoment(facts, nowMs)))
      moments.set(key, [...(moments.get(key) ?? []), value])
  }
  // At its end, and at each third step before it.
  for (let upTo = events.length; upTo >= 0; upTo -= 3) {
    const seen = events.slice(0, upTo)
    const facts = outlookFrom(kept, seen)
    const lastMs = seen.at(-1)?.occurredAtMs ?? NOW_MS
    for (const afterS of [20, 25 * 60]) look(facts, lastMs + 1000 * afterS)
  }
  const facts = foldPour(kept, events, 1)
  const learnt = learntOf(outlookFrom(kept, events))
  return {
    keepPlan: kept,
    ...ofPlan(of),
    ...Object.fromEntries(moments),
    learnPace: learnt,
    forecastPour: learnt && forecastPour(facts, learnt),
    observationsOf: observationsOf(facts, learnt, []),
    summarisePour: summarisePour(kept, events, 1),
  }
}

/** @param full the figures themselves instead of their sums: to be laid beside those of another day. */
export function modelFigures(full = false): Record<string, Record<string, unknown>> {
  const said = [
    ...[...shedJobs(), ...thrownJobs(), coldJob()].map((job): [string, Record<string, unknown>] => [
      job.name,
      ofJob(job),
    ]),
    ...Object.entries(partFigures()),
  ]
  return Object.fromEntries(
    said.map(([name, answers]) => [
      name,
      Object.fromEntries(
        Object.entries(answers).map(([asked, value]) => [asked, full ? plain(value) : sumOf(value)]),
      ),
    ]),
  )
}

export interface KeptFigures {
  modelVersion: number
  jobs: Record<string, Record<string, string>>
}
export const MODEL_FIGURES_FILE = fileURLToPath(new URL('../unit/modelFigures.json', import.meta.url))

/** A line a job: what a change moved is seen in its diff. */
export function writeFigures({ modelVersion, jobs }: KeptFigures): void {
  const lines = Object.entries(jobs).map(
    ([name, sums]) => `    ${JSON.stringify(name)}: ${JSON.stringify(sums)}`,
  )
  writeFileSync(
    MODEL_FIGURES_FILE,
    `{\n  "modelVersion": ${modelVersion},\n  "jobs": {\n${lines.join(',\n')}\n  }\n}\n`,
  )
}
