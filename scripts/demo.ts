/**
 * The made-up workshop that a first start shows: Saltmarsh Shed, a museum of tides. Everything is dated relative
 * to the moment it is loaded, so that its clocks run.
 */
import { randomUUID } from 'node:crypto'
import { sql } from 'kysely'
import { dryingCurve, dryingDepthMm } from '../core/drying'
import { mixProperties } from '../core/mix'
import { plasterProperties, type PlasterClassId } from '../core/plaster'
import { foldPour, planMould, stepsOf, type EventBody, type PourEvent, type PourPlan } from '../core/pour'
import { planSchema, settingsSchema } from '../shared/contracts'
import type { Db } from '../server/db/client'
import { mouldInputSchema } from '../shared/moulds'
import { insertMould } from '../server/services/moulds'
import { putMouldSet } from '../server/services/mouldSets'
import { saveSettings } from '../server/services/workshop'
import { DEMO_MOULDS, DEMO_SETS, type DemoMouldKey } from './demoMoulds'

const MIN = 60
const HOUR = 3600
const DAY = 24 * HOUR

export const DEMO_PLASTERS = {
  pottery: ['Pottery plaster, blue sack', 'pottery', null, 'Opened in spring, kept in the dry bin.'],
  moulding: ['Plaster of Paris, paper bag', 'pop', 64, 'The bag says 64 to 100.'],
  cement: ['Gypsum cement, grey tub', 'gc', null, 'For anything children will hold.'],
  hard: ['High-strength gypsum cement, red tub', 'hsgc', 32, 'The tub says 32 to 100.'],
  stone: ['Dental stone, small tin', 'dental3', 30, 'For the jaw and other fine things.'],
  shell: ['Shell mix 1 : 1 : 1', 'investment', null, 'Mixed here from plaster of Paris and silica flour.'],
} as const satisfies Record<string, [string, PlasterClassId, number | null, string]>

type MouldIds = Record<DemoMouldKey, string>
type MakePlan = (piece: string, mouldKey: DemoMouldKey, change?: Partial<PourPlan>) => PourPlan

function plan(
  ids: MouldIds,
  piece: string,
  mouldKey: DemoMouldKey,
  change: Partial<PourPlan> = {},
): PourPlan {
  const { plaster: plasterKey, ...described } = DEMO_MOULDS[mouldKey]
  const [plasterName, classId, labelConsistency] = DEMO_PLASTERS[plasterKey]
  const properties = plasterProperties(classId, labelConsistency ? { useConsistency: labelConsistency } : {})
  return planSchema.parse({
    schemaVersion: 1,
    piece,
    mould: planMould([{ ...described, mouldId: ids[mouldKey], count: 1 }]),
    plaster: { name: plasterName, properties },
    consistency: properties.useConsistency,
    ratioMethod: 'weighed',
    sparePct: 8,
    airFraction: 0.01,
    waterTempC: 16,
    powderTempC: 18,
    soakS: 120,
    stirS: 120,
    stirManner: 'hand',
    air: { tempC: 18, rhPct: 55, speedMS: 0.1 },
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
    scaleDivisionG: 1,
    ...change,
  })
}

type Timed = [atS: number, who: string, body: EventBody]

/** Bodies of the wet steps in order, up to one of them, the last `lastDoneS` ago, at the planned pace or another. */
function run(
  of: PourPlan,
  who: string,
  upTo: EventBody['type'],
  lastDoneS: number,
  pace: Pick<PourPlan, 'soakS' | 'stirS' | 'stirManner'> = of,
): Timed[] {
  const { planned, siftS } = foldPour(of, [])
  const filled = of.plaster.properties.fillerRatio > 0
  const steps = stepsOf(of)
  const paced: [afterS: number, body: EventBody][] = [
    [0, { type: 'mould_ready' }],
    [4 * MIN, { type: 'weighed', what: 'water', massG: planned.waterG + 1 }],
    [3 * MIN, { type: 'weighed', what: 'powder', massG: planned.powderG - 2 }],
    ...(filled
      ? [[2 * MIN, { type: 'weighed', what: 'filler', massG: planned.fillerG }] as [number, EventBody]]
      : []),
    [MIN, { type: 'sift_started' }],
    [siftS, { type: 'sifted' }],
    [pace.soakS + 8, { type: 'soaked' }],
    [pace.stirS + 5, { type: 'stirred', manner: pace.stirManner }],
    ...(steps.includes('face_coat') ? [[25, { type: 'face_coated' }] as [number, EventBody]] : []),
    ...(steps.includes('part_fill') ? [[20, { type: 'part_filled' }] as [number, EventBody]] : []),
    [70, { type: 'poured' }],
    [60, { type: 'tapped' }],
  ]
  const end = paced.findLastIndex(([, body]) => body.type === upTo)
  const done = paced.slice(0, end + 1)
  let at = -lastDoneS - done.slice(1).reduce((sum, [afterS]) => sum + afterS, 0)
  return done.map(([afterS, body], i) => {
    at += i === 0 ? 0 : afterS
    return [at, who, body]
  })
}

function toEvents(nowMs: number, timed: readonly Timed[]): PourEvent[] {
  return timed.map(([atS, who, body]) => ({
    id: randomUUID(),
    occurredAtMs: Math.round(nowMs + atS * 1000),
    who,
    body,
  }))
}

/** A whole wet run that ended so long ago that demoulding falls due in `inS`. */
function settingDueIn(of: PourPlan, who: string, inS: number): Timed[] {
  const facts = foldPour(of, toEvents(0, run(of, who, 'tapped', 0)))
  const dueS = facts.settingStartMs! / 1000 + facts.demould.recommendedS
  return run(of, who, 'tapped', dueS - inS)
}

/** Out of the mould `agoS` ago, after a whole wet run and its wait. */
function demouldedAgo(of: PourPlan, who: string, agoS: number): Timed[] {
  const wet = settingDueIn(of, who, -5 * MIN).map(([atS, w, body]): Timed => [atS - agoS, w, body])
  return [...wet, [-agoS, who, { type: 'demoulded', outcome: 'whole' }]]
}

/** Weighings as this shed's air would give them: a little slower than the class default. */
function weighings(of: PourPlan, who: string, demouldAgoS: number, atS: readonly number[]): Timed[] {
  const mix = mixProperties({ ...of, plaster: of.plaster.properties })
  const powderG = of.mould.cavityMl / mix.slurryMlPerG
  const curve = dryingCurve({
    freeWaterKgM3: mix.freeWaterKgM3,
    depthMm: dryingDepthMm(of.mould.thicknessMm, of.dryingExposure),
    air: of.air,
    speedFactor: 0.8,
  })
  return atS.map((s, i) => [
    s - demouldAgoS,
    who,
    {
      type: 'weighing',
      massG: Math.round(
        powderG * (mix.dryMassPerPowder * 0.995 + mix.freeWaterPerPowder * curve.fractionLeft(s)) + (i % 2),
      ),
    },
  ])
}

function demoPours(plan: MakePlan): { of: PourPlan; timed: Timed[]; ageS: number }[] {
  const corbel = plan('Corbel for the boathouse door', 'corbel', { stirS: 180, soakS: 180 })
  const jug = plan('Lamp-oil jug, second half', 'jug', { dryTarget: 'pottery_mould', stirS: 240 })
  const glass = plan('Shell for the glass urchin', 'shell', { soakS: 180, sparePct: 5, dryTarget: 'handle' })
  const tile = plan('Chart tile B4, the bar', 'tile')
  const creek = plan('Creek ripples, tile copy', 'tile', { sparePct: 12 })
  const urchin = plan('Sea urchin, hand piece 7', 'urchin')
  const ammonite = plan('Ammonite, hand piece 12', 'ammonite')
  const ear = plan('Ear for the listening post', 'ear', { sparePct: 15 })
  const jaw = plan('Seal’s jaw', 'jaw', { dryTarget: 'handle', stirManner: 'whisk', stirS: 60 })
  const clock = plan('Tide-clock face', 'clock', { soakS: 180, stirS: 240 })
  const flat = plan('Ripples, north flat, neap', 'ripple', {
    air: { tempC: 15, rhPct: 65, speedMS: 0.5 },
    waterTempC: 12,
    powderTempC: 12,
    dryTarget: 'seal',
  })
  const urchinOld = plan('Sea urchin, hand piece 6', 'urchin')
  const tileOld = plan('Chart tile A1, the harbour', 'tile')
  const shellOld = plan('Shell for the glass urchin, first try', 'shell', { soakS: 180, dryTarget: 'handle' })

  const clockAgoS = 4.2 * DAY
  const flatAgoS = 1.3 * DAY
  const oldAgoS = 16 * DAY
  return [
    { of: corbel, timed: [], ageS: 20 * MIN },
    { of: jug, timed: run(jug, 'Odile', 'weighed', 2 * MIN).slice(0, 2), ageS: 30 * MIN },
    { of: glass, timed: run(glass, 'Tomas', 'sift_started', 12), ageS: 50 * MIN },
    { of: tile, timed: run(tile, 'Mina', 'sifted', 35), ageS: 40 * MIN },
    { of: creek, timed: run(creek, 'Ines', 'soaked', 40), ageS: 45 * MIN },
    { of: urchin, timed: run(urchin, 'Odile', 'face_coated', 20), ageS: 55 * MIN },
    { of: ammonite, timed: settingDueIn(ammonite, 'Mina', 8 * MIN), ageS: 2 * HOUR },
    {
      of: ear,
      timed: [
        ...settingDueIn(ear, 'Ines', 95 * MIN),
        [-40 * MIN, 'Ines', { type: 'touch', cue: 'warm', seen: true }],
      ],
      ageS: 3 * HOUR,
    },
    { of: jaw, timed: settingDueIn(jaw, 'Tomas', -6 * MIN), ageS: 2 * HOUR },
    {
      of: clock,
      timed: [
        ...demouldedAgo(clock, 'Mina', clockAgoS),
        ...weighings(clock, 'Mina', clockAgoS, [0.2 * HOUR, 25 * HOUR, 50 * HOUR, 4.1 * DAY]),
        [-3 * DAY, 'Mina', { type: 'note', text: 'Turned it over; the back was still cold.' }],
      ],
      ageS: 5 * DAY,
    },
    {
      of: flat,
      timed: [...demouldedAgo(flat, 'Tomas', flatAgoS), ...weighings(flat, 'Tomas', flatAgoS, [0.3 * HOUR])],
      ageS: 2 * DAY,
    },
    {
      of: urchinOld,
      timed: [
        ...demouldedAgo(urchinOld, 'Odile', oldAgoS),
        ...weighings(urchinOld, 'Odile', oldAgoS, [0.2 * HOUR, 2 * DAY, 4 * DAY, 8 * DAY, 11 * DAY]),
        [
          -4 * DAY,
          'Odile',
          { type: 'finished', verdict: 'good', reason: 'Clean spines, no seam to speak of.' },
        ],
      ],
      ageS: 17 * DAY,
    },
    {
      of: tileOld,
      timed: [
        ...demouldedAgo(tileOld, 'Ines', 10 * DAY),
        [-10 * DAY + 600, 'Ines', { type: 'defect', kind: 'air_holes' }],
        ...weighings(tileOld, 'Ines', 10 * DAY, [0.5 * HOUR, 1.2 * DAY, 3 * DAY, 5 * DAY]),
        [
          -4.5 * DAY,
          'Ines',
          { type: 'finished', verdict: 'usable', reason: 'Two air holes in the quay, filled and sanded.' },
        ],
      ],
      ageS: 11 * DAY,
    },
    {
      of: shellOld,
      timed: [
        ...run(shellOld, 'Tomas', 'stirred', 6 * DAY, {
          soakS: 8 * MIN,
          stirS: 5 * MIN,
          stirManner: 'drill',
        }),
        [-6 * DAY + 200, 'Tomas', { type: 'defect', kind: 'short_fill' }],
        [
          -6 * DAY + 600,
          'Tomas',
          {
            type: 'finished',
            verdict: 'failed',
            reason: 'Too thick to pour by the second layer: soaked too long and stirred too hard.',
          },
        ],
      ],
      ageS: 6 * DAY + HOUR,
    },
  ]
}

/** Empties the workshop; its settings and the numbers of the change log stay. */
export async function clearWorkshop(db: Db): Promise<void> {
  await sql`truncate event, pour, mould_set_member, mould_set, mould_photo, mould, plaster`.execute(db)
}

/** Loads the demo workshop into an empty database, all or nothing. */
export async function loadDemo(db: Db, nowMs: number): Promise<void> {
  await db.transaction().execute(async (trx) => {
    await saveSettings(
      trx,
      settingsSchema.parse({
        workshopName: 'Saltmarsh Shed',
        system: 'metric',
        scaleDivisionG: 1,
        roomTempC: 18,
        roomRhPct: 55,
        airSpeedMS: 0.1,
        tapTempC: 16,
      }),
    )
    const mouldIds = Object.fromEntries(
      Object.keys(DEMO_MOULDS).map((key) => [key, randomUUID()]),
    ) as MouldIds
    const plasterIds = new Map<string, string>()
    for (const [key, [name, classId, labelConsistency, note]] of Object.entries(DEMO_PLASTERS)) {
      const id = randomUUID()
      plasterIds.set(key, id)
      await trx
        .insertInto('plaster')
        .values({
          id,
          name,
          class_id: classId,
          label_consistency: labelConsistency,
          label_expansion_pct: null,
          note,
        })
        .execute()
    }
    for (const [key, { plaster, ...described }] of Object.entries(DEMO_MOULDS)) {
      const mould = mouldInputSchema.parse({ ...described, usualPlasterId: plasterIds.get(plaster)! })
      await insertMould(trx, mouldIds[key as DemoMouldKey], mould)
    }
    for (const { name, members } of DEMO_SETS) {
      const set = { name, members: members.map(([key, count]) => ({ mouldId: mouldIds[key], count })) }
      await putMouldSet(trx, randomUUID(), set)
    }
    const makePlan: MakePlan = (piece, mouldKey, change) => plan(mouldIds, piece, mouldKey, change)
    for (const { of, timed, ageS } of demoPours(makePlan)) {
      const pourId = randomUUID()
      await trx
        .insertInto('pour')
        .values({ id: pourId, plan: JSON.stringify(of), created_at: new Date(nowMs - ageS * 1000) })
        .execute()
      for (const e of toEvents(nowMs, timed)) {
        await trx
          .insertInto('event')
          .values({
            id: e.id,
            pour_id: pourId,
            type: e.body.type,
            body: JSON.stringify(e.body),
            occurred_at: new Date(e.occurredAtMs),
            received_at: new Date(e.occurredAtMs + 300),
            who: e.who,
            voids_event_id: null,
          })
          .execute()
      }
    }
  })
}
