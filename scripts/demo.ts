/**
 * The made-up workshop that a first start shows: Saltmarsh Shed, a museum of tides. Everything is dated relative
 * to the moment it is loaded, so that its clocks run.
 */
import { DEMO_PIECE, SettingPiece } from '../devices/probeModel'
import { meetDevice, putDevice } from '../server/services/devices'
import { randomUUID } from 'node:crypto'
import { lightFormat } from 'date-fns'
import { sql } from 'kysely'
import sharp from 'sharp'
import { dryingCurve, dryingDepths, fractionLeftAt } from '../core/drying'
import { mixProperties } from '../core/mix'
import {
  bodyOfStep,
  keepPlan,
  outlookFrom,
  planMould,
  stageOf,
  stepTakesS,
  type DeviceChannel,
  type EventBody,
  type PlanStep,
  type PourEvent,
  type PourOutlook,
  type PourPlan,
  type StepId,
} from '../core/pour'
import { propertiesOfCard, spoonTestForecastS } from '../core/stock'
import { planSchema } from '../shared/plans'
import { settingsSchema } from '../shared/contracts'
import type { Db } from '../server/db/client'
import type { PlaceInput } from '../shared/learning'
import { mouldInputSchema } from '../shared/moulds'
import type { BagInput, BowlInput, PlasterInput } from '../shared/stock'
import { addSpoonTest, putBag } from '../server/services/bags'
import { putBowl, putPlace, putRecipe } from '../server/services/cupboard'
import { insertMould } from '../server/services/moulds'
import { putMouldSet } from '../server/services/mouldSets'
import { putPlaster } from '../server/services/plasters'
import { insertPhoto, reducePhoto } from '../server/services/photos'
import { getPour } from '../server/services/pours'
import { addSettling } from '../server/services/settling'
import { summarise } from '../server/services/summaries'
import { getSettings, saveSettings } from '../server/services/workshop'
import { DEMO_MOULDS, DEMO_SETS, type DemoMouldKey } from './demoMoulds'
import { DEMO_PLASTERS, type DemoPlasterKey } from './demoPlasters'

const MIN = 60
const HOUR = 3600
const DAY = 24 * HOUR

interface DemoBag extends Pick<BagInput, 'name' | 'boughtG' | 'price' | 'keeping' | 'scoop'> {
  openDays: number
  /** How its spoonfuls took against the card, with how many days ago. */
  spoonTests: [daysAgo: number, ratio: number][]
}

/** One bag of each but the shell mix, which is blended as it is needed. */
const DEMO_BAGS: Partial<Record<DemoPlasterKey, DemoBag>> = {
  pottery: {
    name: 'Sack of spring',
    boughtG: 25_000,
    price: 21,
    openDays: 190,
    keeping: 'dry_open',
    scoop: { measureMl: 500, packing: 'scooped', weighedKgM3: 880 },
    spoonTests: [
      [12, 1.18],
      [40, 1.12],
    ],
  },
  moulding: {
    name: 'Bag by the door',
    boughtG: 10_000,
    price: 13.5,
    openDays: 60,
    keeping: 'damp',
    scoop: null,
    spoonTests: [],
  },
  cement: {
    name: 'Tub 2',
    boughtG: 20_000,
    price: 38,
    openDays: 35,
    keeping: 'sealed',
    scoop: null,
    spoonTests: [],
  },
  hard: {
    name: 'Red tub',
    boughtG: 5_000,
    price: 17,
    openDays: 80,
    keeping: 'sealed',
    scoop: null,
    spoonTests: [[30, 0.97]],
  },
}

const DEMO_BOWLS: (BowlInput & { bowlId: string })[] = [
  { bowlId: randomUUID(), name: 'Rubber bowl', volumeMl: 700, tareG: 118 },
  { bowlId: randomUUID(), name: 'Blue basin', volumeMl: 4000, tareG: 236 },
  { bowlId: randomUUID(), name: 'Black bucket', volumeMl: 10_000, tareG: 512 },
]
const [RUBBER_BOWL, BLUE_BASIN] = DEMO_BOWLS
/** All out of one bowl, or as many as it takes of it. */
const mixedIn = (bowl = BLUE_BASIN!): PourPlan['batching'] => ({
  split: { by: 'need' },
  bowl,
  pourRateMlMin: null,
  scaleCapacityG: 5000,
})

/** Bowls that follow one another, each named by its layer. */
const inLayers = (...layers: [name: string, sharePct: number][]): PourPlan['batching'] => ({
  split: { by: 'layers', layers: layers.map(([name, sharePct]) => ({ name, sharePct })) },
  bowl: null,
  pourRateMlMin: null,
  scaleCapacityG: 5000,
})

type MouldIds = Record<DemoMouldKey, string>
type PlasterIds = Record<DemoPlasterKey, string>
type BagIds = Partial<Record<DemoPlasterKey, string>>
interface Ids extends Stock {
  placeIds: PlaceIds
}
interface Stock {
  plasterIds: PlasterIds
  bagIds: BagIds
}
type MakePlan = (piece: string, mouldKey: DemoMouldKey, change?: Partial<PourPlan>) => PourPlan

function plan(
  ids: MouldIds,
  { plasterIds, bagIds, placeIds }: Ids,
  piece: string,
  mouldKey: DemoMouldKey,
  change: Partial<PourPlan> = {},
): PourPlan {
  const { plaster: plasterKey, ...described } = DEMO_MOULDS[mouldKey]
  const { name, label: said } = DEMO_PLASTERS[plasterKey]
  const properties = propertiesOfCard(said)
  const bag = DEMO_BAGS[plasterKey]
  const bagId = bagIds[plasterKey]
  return planSchema.parse({
    schemaVersion: 2,
    piece,
    mould: planMould([{ ...described, mouldId: ids[mouldKey], count: 1 }]),
    plaster: {
      name,
      plasterId: plasterIds[plasterKey],
      properties,
      ...(bag && bagId ? { bag: { bagId, name: bag.name, boughtG: bag.boughtG, price: bag.price } } : {}),
    },
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
    dryingPlace: {
      placeId: placeIds.rack,
      name: DEMO_PLACES.rack.name,
      air: DEMO_PLACES.rack.air,
    },
    dryingExposure: 'both_faces',
    dryTarget: 'paint',
    scaleDivisionG: 1,
    ...change,
  })
}

type Pace = Pick<PourPlan, 'soakS' | 'stirS' | 'stirManner'>
type Timed = [atS: number, who: string, body: EventBody]

/** How long after the one before a step was done, s, where it is not what is reckoned for it. */
const AFTER_S: Partial<Record<StepId, number | ((pace: Pace) => number)>> = {
  key_layer: 3 * MIN,
  check_air: MIN,
  weigh_water: 4 * MIN,
  weigh_powder: 3 * MIN,
  weigh_filler: 2 * MIN,
  start_sift: MIN,
  soak: (pace) => pace.soakS + 8,
  stir: (pace) => pace.stirS + 5,
  face_coat: 25,
  part_fill: 20,
  thicken: 4 * MIN,
  build: 3 * MIN,
  pour: 70,
  roughen: 40,
}
/** What was weighed of a bowl: a gram or two beside the plan, g. */
const WEIGHED_G: Partial<Record<StepId, (planned: PourOutlook['inHand']['planned']) => number>> = {
  weigh_water: ({ waterG }) => waterG + 1,
  weigh_powder: ({ powderG }) => powderG - 2,
  weigh_filler: ({ fillerG }) => fillerG,
}

/** What a step of a plan records, and how long after the one before. */
function stepDone(facts: PourOutlook, step: PlanStep, pace: Pace): [afterS: number, body: EventBody] {
  const after = AFTER_S[step.id] ?? stepTakesS(facts, step)
  const massG = WEIGHED_G[step.id]?.(facts.batches[step.batch]!.planned) ?? NaN
  const body = bodyOfStep(step, { massG, stirManner: pace.stirManner })
  if (!body) throw new Error(`what ${step.id} records is asked`)
  return [typeof after === 'number' ? after : after(pace), body]
}

/** The wet steps in order, up to one of them, the last `lastDoneS` ago, at the planned pace or another. */
function run(of: PourPlan, who: string, upTo: StepId, lastDoneS: number, pace: Pace = of): Timed[] {
  const facts = outlookFrom(keepPlan(of), [])
  const end = facts.steps.findLastIndex((s) => s.id === upTo)
  const done = facts.steps.slice(0, end + 1).map((s) => stepDone(facts, s, pace))
  let at = -lastDoneS - done.slice(1).reduce((sum, [afterS]) => sum + afterS, 0)
  return done.map(([afterS, body], i) => {
    at += i === 0 ? 0 : afterS
    return [at, who, body]
  })
}

/** The last thing done before it is left to set. */
const lastWet = (of: PourPlan): StepId =>
  outlookFrom(keepPlan(of), []).steps.findLast((s) => stageOf(s) === 'pour')!.id

function toEvents(nowMs: number, timed: readonly Timed[]): PourEvent[] {
  return timed.map(([atS, who, body]) => ({
    id: randomUUID(),
    occurredAtMs: Math.round(nowMs + atS * 1000),
    who,
    body,
  }))
}

/** A whole wet run that ended so long ago that demoulding falls due in `inS`. */
function settingDueIn(of: PourPlan, who: string, inS: number, pace: Pace = of): Timed[] {
  const last = lastWet(of)
  const facts = outlookFrom(keepPlan(of), toEvents(0, run(of, who, last, 0, pace)))
  const dueS = facts.settingStartMs! / 1000 + facts.demould.recommendedS
  return run(of, who, last, dueS - inS, pace)
}

/** Out of the mould `agoS` ago, after a whole wet run and its wait. */
function demouldedAgo(of: PourPlan, who: string, agoS: number, pace: Pace = of): Timed[] {
  const wet = settingDueIn(of, who, -5 * MIN, pace).map(([atS, w, body]): Timed => [atS - agoS, w, body])
  return [...wet, [-agoS, who, { type: 'demoulded', outcome: 'whole' }]]
}

/** Weighings as this shed's air would give them: a little slower than the class default. */
function weighings(of: PourPlan, who: string, demouldAgoS: number, atS: readonly number[]): Timed[] {
  const mix = mixProperties({ ...of, plaster: of.plaster.properties })
  const powderG = of.mould.cavityMl / mix.slurryMlPerG
  const curve = dryingCurve({
    freeWaterKgM3: mix.freeWaterKgM3,
    ...dryingDepths(of.mould.thicknessMm, of.dryingExposure),
    air: of.air,
    speedFactor: 0.8,
  })
  return atS.map((s, i) => [
    s - demouldAgoS,
    who,
    {
      type: 'weighing',
      massG: Math.round(
        powderG * (mix.dryMassPerPowder * 0.995 + mix.freeWaterPerPowder * fractionLeftAt(curve, s)) +
          (i % 2),
      ),
    },
  ])
}

/** Places of the shed to dry in. */
const DEMO_PLACES = {
  rack: {
    name: 'Rack by the window',
    kind: 'still',
    air: { tempC: 18, rhPct: 55, speedMS: 0.1 },
    nightAir: null,
  },
  stove: {
    name: 'Shelf over the stove',
    kind: 'breeze',
    air: { tempC: 30, rhPct: 35, speedMS: 0.5 },
    nightAir: null,
  },
  loft: {
    name: 'Loft, shutters open',
    kind: 'outdoors',
    air: { tempC: 17, rhPct: 60, speedMS: 0.8 },
    nightAir: { tempC: 8, rhPct: 88, speedMS: 0.5 },
  },
} satisfies Record<string, PlaceInput>
type PlaceIds = Record<keyof typeof DEMO_PLACES, string>

/** What a litre of slurry weighs that came to so many parts of water instead of what was planned. */
function checkOf(of: PourPlan, consistency: number): EventBody {
  const mix = mixProperties({ ...of, consistency, plaster: of.plaster.properties })
  return { type: 'slurry_checked', massG: Math.round(mix.slurryDensityKgM3), volumeMl: 1000 }
}

/**
 * A tile of some weeks ago: seen to set at this factor against its card, what was over measured, and dried on the rack.
 * What the bag by the door, the rubber bowl and the rack have taught comes of these. Mina sifts by eye, a little thin.
 * @param gave what the bowl really gave of what was weighed into it.
 */
function tileOf(
  plan: MakePlan,
  name: string,
  who: 'Mina' | 'Ines' | 'Odile',
  agoS: number,
  slower: number,
  gave: number,
): DemoPour {
  const byEye: Partial<PourPlan> = who === 'Mina' ? { ratioMethod: 'by_eye', siftStage: 'lake_bed' } : {}
  const of = plan(name, 'tile', { ...byEye, batching: mixedIn(RUBBER_BOWL) })
  const facts = outlookFrom(keepPlan(of), toEvents(0, settingDueIn(of, who, 0)))
  const run = settingDueIn(of, who, -25 * MIN * slower)
  const after = (type: EventBody['type'], afterS: number, body: EventBody): Timed => [
    run.find(([, , b]) => b.type === type)![0] + afterS,
    who,
    body,
  ]
  const overMl = Math.round(gave * facts.actual!.slurryMl - of.mould.cavityMl)
  const wet = [
    ...run,
    ...('siftStage' in byEye ? [after('stirred', 15, checkOf(of, of.consistency * 1.05))] : []),
    after('tapped', 20, { type: 'left_over', volumeMl: overMl }),
  ]
  const startS = outlookFrom(keepPlan(of), toEvents(0, wet)).settingStartMs! / 1000
  const at = (mark: 'initial_set' | 'final_set') => startS + slower * facts.setting.timeS[mark].mid
  const cues: Timed[] = [
    [at('initial_set'), who, { type: 'touch', cue: 'gloss_gone', seen: true }],
    [at('final_set'), who, { type: 'touch', cue: 'thumbnail_no_dent', seen: true }],
  ]
  const out: Timed[] = [...wet, ...cues].map(([s, w, body]) => [s - agoS, w, body])
  return {
    of,
    timed: [
      ...out,
      [-agoS, who, { type: 'demoulded', outcome: 'whole' }],
      ...weighings(of, who, agoS, [0.2 * HOUR, 1.1 * DAY, 2.2 * DAY, 4 * DAY]),
      [6 * DAY - agoS, who, { type: 'finished', verdict: 'good', reason: '' }],
    ],
    ageS: agoS + 4 * HOUR,
  }
}

/** Devices of the shed, by the names that their stand-ins give (devices/main.ts). */
const DEMO_DEVICES = [
  { id: 'shed-scale', name: 'Bench scale' },
  { id: 'shed-floor-scale', name: 'Floor scale' },
  { id: 'shed-thermometer', name: 'Thermometer' },
  { id: 'shed-button', name: 'Elbow button' },
] as const

/** A tile full of holes, drawn: what a photograph of it would show. */
const FAILED_TILE = `<svg xmlns="http://www.w3.org/2000/svg" width="960" height="720">
  <rect width="960" height="720" fill="#5d5a55"/>
  <g transform="rotate(-3 480 360)">
    <rect x="150" y="110" width="660" height="500" rx="14" fill="#efece4"/>
    <path d="M150 420 Q330 360 480 430 T810 400 V596 Q810 610 796 610 H164 Q150 610 150 596 Z" fill="#dcd7cb"/>
    <path d="M150 460 Q330 400 480 470 T810 440" fill="none" stroke="#c9c3b5" stroke-width="8"/>
    <rect x="400" y="230" width="170" height="200" fill="#e3dfd4" stroke="#c4beb0" stroke-width="6"/>
    ${[
      [430, 260, 7],
      [505, 300, 11],
      [455, 350, 5],
      [540, 390, 8],
      [300, 330, 6],
      [620, 300, 7],
      [240, 480, 5],
      [680, 500, 9],
      [700, 210, 6],
      [350, 200, 5],
    ]
      .map(([x, y, r]) => `<circle cx="${x}" cy="${y}" r="${r}" fill="#8a8477"/>`)
      .join('')}
    <path d="M812 250 q-58 14 -52 60 q30 34 52 20 Z" fill="#5d5a55"/>
  </g></svg>`

interface DemoPour {
  of: PourPlan
  /** Drawn, of how it came out, so long ago. */
  photo?: { svg: string; agoS: number; who: string; id: string }
  timed: Timed[]
  ageS: number
  /** What is put to it. */
  devices?: { id: (typeof DEMO_DEVICES)[number]['id']; channel: DeviceChannel }[]
}

/** What a thermometer in a setting piece has read since it was poured, each ten seconds. */
async function loadReadings(trx: Db, pourId: string, of: PourPlan, timed: readonly Timed[], nowMs: number) {
  const pouredS = timed.find(([, , body]) => body.type === 'poured')?.[0]
  if (pouredS === undefined) return
  const { classId, consistency, tempC, ageS, pace } = DEMO_PIECE
  const piece = new SettingPiece(classId, consistency, of.air.tempC, tempC, ageS + pouredS, pace)
  const rows: { at: Date; value: number }[] = []
  for (let s = pouredS; s < 0; s++) {
    piece.step(1)
    if (Math.round(s - pouredS) % 10 === 0)
      rows.push({ at: new Date(nowMs + s * 1000), value: Math.round(piece.tempC * 10) / 10 })
  }
  await trx
    .insertInto('reading')
    .values(
      rows.map((r) => ({
        ...r,
        device_id: 'shed-thermometer',
        channel: 't1',
        pour_id: pourId,
        batch: 0,
        stable: true,
      })),
    )
    .execute()
}

function demoPours(plan: MakePlan): DemoPour[] {
  const corbel = plan('Corbel for the boathouse door', 'corbel', {
    filling: 'squeezed',
    stirS: 180,
    soakS: 180,
    batching: mixedIn(),
  })
  const jug = plan('Lamp-oil jug, second half', 'jug', { dryTarget: 'pottery_mould', stirS: 240 })
  const jugOld = plan('Lamp-oil jug, first half', 'jug', { dryTarget: 'pottery_mould', stirS: 240 })
  const glass = plan('Shell for the glass urchin', 'shell', {
    addingWay: 'tipped_in',
    filling: 'hand_built',
    batching: inLayers(['Face coat', 30], ['Second coat', 70]),
    soakS: 180,
    sparePct: 5,
    dryTarget: 'kiln',
  })
  const tile = plan('Chart tile B4, the bar', 'tile')
  const creek = plan('Creek ripples, tile copy', 'tile', { sparePct: 12 })
  const urchin = plan('Sea urchin, hand piece 7', 'urchin')
  const ammonite = plan('Ammonite, hand piece 12', 'ammonite')
  const ear = plan('Ear for the listening post', 'ear', { sparePct: 15 })
  const jaw = plan('Seal’s jaw', 'jaw', {
    filling: 'two_stage',
    batching: inLayers(['Impression', 40], ['Base', 60]),
    dryTarget: 'handle',
    stirManner: 'gentle',
    stirS: 60,
  })
  const clock = plan('Tide-clock face', 'clock', { soakS: 180, stirS: 240 })
  const flat = plan('Ripples, north flat, neap', 'ripple', {
    air: { tempC: 15, rhPct: 65, speedMS: 0.5 },
    dryingPlace: undefined,
    waterTempC: 12,
    powderTempC: 12,
    dryTarget: 'seal',
  })
  const urchinOld = plan('Sea urchin, hand piece 6', 'urchin')
  const tileOld = plan('Chart tile A1, the harbour', 'tile')
  const tilePhoto = randomUUID()
  const tileFailed = plan('Chart tile A2, the sluice', 'tile')
  const shellOld = plan('Shell for the glass urchin, first try', 'shell', { soakS: 180, dryTarget: 'kiln' })

  const clockAgoS = 4.2 * DAY
  const flatAgoS = 1.3 * DAY
  const oldAgoS = 16 * DAY
  return [
    { of: corbel, timed: [], ageS: 20 * MIN },
    {
      of: jug,
      timed: run(jug, 'Odile', 'weigh_water', 2 * MIN),
      ageS: 30 * MIN,
      devices: [
        { id: 'shed-scale', channel: 'mass' },
        { id: 'shed-button', channel: 'button' },
      ],
    },
    { of: glass, timed: run(glass, 'Tomas', 'weigh_filler', 12), ageS: 50 * MIN },
    { of: tile, timed: run(tile, 'Mina', 'sift', 35), ageS: 40 * MIN },
    { of: creek, timed: run(creek, 'Ines', 'soak', 40), ageS: 45 * MIN },
    { of: urchin, timed: run(urchin, 'Odile', 'face_coat', 20), ageS: 55 * MIN },
    {
      of: ammonite,
      timed: settingDueIn(ammonite, 'Mina', 21 * MIN),
      ageS: 2 * HOUR,
      devices: [{ id: 'shed-thermometer', channel: 't1' }],
    },
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
      of: jugOld,
      timed: [
        ...demouldedAgo(jugOld, 'Odile', 26 * DAY),
        ...weighings(jugOld, 'Odile', 26 * DAY, [0.2 * HOUR, 3 * DAY, 7 * DAY, 12 * DAY]),
        [-13 * DAY, 'Odile', { type: 'finished', verdict: 'good', reason: 'Draws water as it should.' }],
        // Slip four times in two days: it no longer draws.
        ...[2.4, 2, 1.3, 0.6].map((days): Timed => [-days * DAY, 'Odile', { type: 'kept_up', what: 'used' }]),
      ],
      ageS: 27 * DAY,
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
    tileOf(plan, 'Chart tile A3, the weir', 'Mina', 41 * DAY, 1.22, 0.968),
    tileOf(plan, 'Chart tile A4, the ferry steps', 'Ines', 34 * DAY, 1.1, 0.975),
    tileOf(plan, 'Chart tile A5, the salt pans', 'Mina', 27 * DAY, 1.24, 0.962),
    tileOf(plan, 'Chart tile A6, the spit', 'Odile', 20 * DAY, 1.16, 0.97),
    tileOf(plan, 'Chart tile A7, the groynes', 'Mina', 13 * DAY, 1.2, 0.973),
    {
      of: tileFailed,
      photo: { svg: FAILED_TILE, agoS: 7 * DAY - 480, who: 'Tomas', id: tilePhoto },
      timed: [
        // Stirred as soon as the powder was in, and never tapped: its record tells why it is full of holes.
        ...demouldedAgo(tileFailed, 'Tomas', 7 * DAY, { ...tileFailed, soakS: 10 }).filter(
          ([, , { type }]) => type !== 'tapped' && type !== 'air_freed',
        ),
        [
          -7 * DAY + 500,
          'Tomas',
          {
            type: 'defect',
            kind: 'air_holes',
            place: 'face',
            sizeMm: 3,
            spot: { x: 0.5, y: 0.43 },
            photoId: tilePhoto,
          },
        ],
        [
          -7 * DAY + 520,
          'Tomas',
          {
            type: 'defect',
            kind: 'voids',
            place: 'edge',
            spot: { x: 0.82, y: 0.37 },
            photoId: tilePhoto,
          },
        ],
        [
          -6.9 * DAY,
          'Tomas',
          {
            type: 'finished',
            verdict: 'failed',
            reason: 'Holes all over the sluice gate; not worth filling.',
          },
        ],
      ],
      ageS: 7.2 * DAY,
    },
    {
      of: shellOld,
      timed: [
        ...run(shellOld, 'Tomas', 'stir', 6 * DAY, {
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
  await sql`truncate figure_sum, heed, pour_summary, observation, learn_choice, place, bag_draw, mould_use, event, plan_revision, pour, mould_set_member, mould_set,
    photo, mould, spoon_test, bag, plaster, bowl, recipe, reading, device_use, device, settling`.execute(db)
}

/** Plasters, their bags with what was tried of them, and the bowls. */
async function loadStock(trx: Db, nowMs: number) {
  const day = (daysAgo: number) => lightFormat(nowMs - daysAgo * DAY * 1000, 'yyyy-MM-dd')
  const plasterIds = {} as PlasterIds
  const bagIds: BagIds = {}
  for (const [key, card] of Object.entries(DEMO_PLASTERS) as [DemoPlasterKey, PlasterInput][]) {
    plasterIds[key] = randomUUID()
    await putPlaster(trx, plasterIds[key], null, card)
    const bag = DEMO_BAGS[key]
    if (!bag) continue
    const { openDays, spoonTests, ...rest } = bag
    const bagId = (bagIds[key] = randomUUID())
    await putBag(trx, bagId, null, {
      ...rest,
      plasterId: plasterIds[key],
      openedOn: day(openDays),
      counted: null,
      usedUp: false,
      note: '',
    })
    for (const [daysAgo, ratio] of spoonTests) {
      const properties = propertiesOfCard(card.label)
      const mix = { consistency: properties.useConsistency, waterTempC: 16, stirS: 60 }
      const tookS = Math.round(spoonTestForecastS(properties, mix).mid * ratio)
      const atMs = Math.round(nowMs - daysAgo * DAY * 1000)
      await addSpoonTest(trx, bagId, { id: randomUUID(), atMs, ...mix, tookS })
    }
  }
  for (const { bowlId, ...bowl } of DEMO_BOWLS) await putBowl(trx, bowlId, null, bowl)
  return { plasterIds, bagIds }
}

async function loadPlaces(trx: Db): Promise<PlaceIds> {
  const ids = {} as PlaceIds
  for (const [key, place] of Object.entries(DEMO_PLACES) as [keyof PlaceIds, PlaceInput][])
    await putPlace(trx, (ids[key] = randomUUID()), null, place)
  return ids
}

/** Loads the demo workshop into an empty database, all or nothing. */
export async function loadDemo(db: Db, nowMs: number): Promise<void> {
  await db.transaction().execute(async (trx) => {
    const { revision } = await getSettings(trx)
    await saveSettings(
      trx,
      revision,
      settingsSchema.parse({
        workshopName: 'Saltmarsh Shed',
        system: 'metric',
        scaleDivisionG: 1,
        roomTempC: 18,
        roomRhPct: 55,
        airSpeedMS: 0.1,
        tapTempC: 16,
        hotTapTempC: 52,
        scaleCapacityG: 5000,
        currency: '€',
        decimalSign: null,
        kitchen: null,
      }),
    )
    const mouldIds = Object.fromEntries(
      Object.keys(DEMO_MOULDS).map((key) => [key, randomUUID()]),
    ) as MouldIds
    const stock = { ...(await loadStock(trx, nowMs)), placeIds: await loadPlaces(trx) }
    for (const [key, { plaster, ...described }] of Object.entries(DEMO_MOULDS)) {
      const mould = mouldInputSchema.parse({ ...described, usualPlasterId: stock.plasterIds[plaster] })
      await insertMould(trx, mouldIds[key as DemoMouldKey], mould)
    }
    for (const { name, members } of DEMO_SETS) {
      const set = { name, members: members.map(([key, count]) => ({ mouldId: mouldIds[key], count })) }
      await putMouldSet(trx, randomUUID(), null, set)
    }
    await putRecipe(trx, randomUUID(), null, {
      name: 'Hand pieces, thinner',
      plan: plan(mouldIds, stock, 'Hand piece', 'ammonite', { consistency: 36, soakS: 180, sparePct: 12 }),
    })
    const shellRecipe = { recipeId: randomUUID(), name: 'Shell, all in at once' }
    await putRecipe(trx, shellRecipe.recipeId, null, {
      name: shellRecipe.name,
      plan: plan(mouldIds, stock, 'Shell', 'shell', { addingWay: 'tipped_in', soakS: 180, sparePct: 5 }),
    })
    await putRecipe(trx, randomUUID(), null, {
      name: 'Prints in cold mud',
      plan: plan(mouldIds, stock, 'Print', 'ripple', {
        addingWay: 'kneaded',
        waterTempC: 8,
        powderTempC: 8,
        stirS: 90,
        batching: {
          split: { by: 'casts', castsPerBag: 1 },
          bowl: null,
          pourRateMlMin: null,
          scaleCapacityG: null,
        },
      }),
    })
    const makePlan: MakePlan = (piece, mouldKey, change) => ({
      ...plan(mouldIds, stock, piece, mouldKey, change),
      ...(mouldKey === 'shell' ? { recipe: shellRecipe } : {}),
    })
    for (const { id, name } of DEMO_DEVICES) await meetDevice(trx, id, name)
    for (const { of, timed, ageS, photo, devices = [] } of demoPours(makePlan)) {
      const pourId = randomUUID()
      await trx
        .insertInto('pour')
        .values({ id: pourId, plan: JSON.stringify(keepPlan(of)), created_at: new Date(nowMs - ageS * 1000) })
        .execute()
      const taken: Timed[] = photo
        ? [[-photo.agoS, photo.who, { type: 'photographed', photoId: photo.id, caption: '' }]]
        : []
      if (photo)
        await insertPhoto(
          trx,
          { pour: pourId },
          photo.id,
          '',
          await reducePhoto(await sharp(Buffer.from(photo.svg)).png().toBuffer()),
        )
      for (const e of toEvents(nowMs, [...timed, ...taken])) {
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
            plan_revision: 1,
          })
          .execute()
      }
      for (const { id, channel } of devices) {
        await putDevice(trx, id, channel, { pourId, batch: 0 })
        if (channel === 't1') await loadReadings(trx, pourId, of, timed, nowMs)
      }
      await summarise(trx, await getPour(trx, pourId))
    }
    for (const [hoursAgo, what] of [
      [40, 'poured_off'],
      [15, 'filled'],
    ] as const)
      await addSettling(trx, {
        id: randomUUID(),
        what,
        atMs: nowMs - hoursAgo * HOUR * 1000,
        who: 'Mina',
      })
  })
}
