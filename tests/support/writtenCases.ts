import { DEMO_MOULDS } from '../../server/demo/moulds'
import { eventAt, fold, testPlan } from '../unit/plans'
import type { CauseId, Diagnosis, FaultKind, Recalled } from '../../core/finish'
import type { MouldFacts, MouldKind, Preparation } from '../../core/mould'
import { blend, type Addition } from '../../core/plaster'
import {
  batchesOf,
  diagnosePour,
  planMould,
  preparationsOf,
  type EventBody,
  type PourPlan,
} from '../../core/pour'

const MIN = 60_000
const ID = '00000000-0000-4000-8000-0000000000aa'

/** How a pour went; what is not given, by the book. */
interface Run {
  /** Against what the plan says. */
  water?: number
  powder?: number
  siftSPerKg?: number
  soakS?: number
  stirS?: number
  manner?: 'hand' | 'drill'
  /** Shares of working time, of the advice. */
  fullAt?: number
  outAt?: number
  tapS?: number
  /** A second bowl, so long after the first was in, min. */
  secondMin?: number
  /** Nobody recorded these. */
  skip?: EventBody['type'][]
  ticked?: (Preparation | 'all')[]
  /** Before it came out; and after. */
  early?: EventBody[]
  late?: EventBody[]
  told?: Recalled[]
}

type MouldKey = keyof typeof DEMO_MOULDS

function planOf(key: MouldKey, change: Partial<PourPlan> = {}, facts: Partial<MouldFacts> = {}): PourPlan {
  const demo = DEMO_MOULDS[key]
  const mould = planMould([{ ...demo, facts: { ...demo.facts, ...facts }, mouldId: ID, count: 1 }])!
  const ground = mould.kind === 'ground' ? { mouldTempC: 16 } : {}
  return { ...testPlan('pottery'), waterTempC: 20, mould, ...ground, ...change }
}

const adding = (...additions: Addition[]): Partial<PourPlan> => {
  const { plaster } = testPlan('pottery')
  return { plaster: { ...plaster, additions, properties: blend(plaster.properties, additions) } }
}

function pourOf(plan: PourPlan, faults: readonly FaultKind[], run: Run) {
  const { waterG, powderG } = batchesOf(plan).total
  const { setting, demould } = fold(plan, [])
  const sifted = 5 + Math.max(0.6, ((run.siftSPerKg ?? 60) * powderG) / 60_000)
  const soaked = sifted + (run.soakS ?? 125) / 60
  const stirred = soaked + (run.stirS ?? 120) / 60
  const start = (5 + sifted) / 2
  const full = Math.max(stirred + 0.2, start + ((run.fullAt ?? 0.7) * setting.timeS.work_end.mid) / 60)
  const out = Math.max(full + 8, start + ((run.outAt ?? 1.2) * demould.recommendedS) / 60)
  const told = [
    [5, { type: 'sift_started' }],
    [sifted, { type: 'sifted' }],
    [soaked, { type: 'soaked' }],
    [stirred, { type: 'stirred', manner: run.manner ?? 'hand' }],
    [full, { type: 'poured' }],
    [full + (run.tapS ?? 40) / 60, { type: 'tapped' }],
    [out, { type: 'demoulded', outcome: 'whole' }],
  ] as [number, EventBody][]
  const batch = 1
  const secondBowl: [number, EventBody][] =
    run.secondMin === undefined
      ? []
      : [
          [-5, { type: 'sift_started', batch }],
          [-4, { type: 'sifted', batch }],
          [-2, { type: 'soaked', batch }],
          [-0.5, { type: 'stirred', manner: 'hand', batch }],
          [0, { type: 'poured', batch }],
        ]
  const ticked = (run.ticked ?? []).flatMap((t) => (t === 'all' ? preparationsOf(plan) : [t]))
  const events: [number, EventBody][] = [
    ...ticked.map((item): [number, EventBody] => [0, { type: 'prepared', item }]),
    [1, { type: 'mould_ready' }],
    [2, { type: 'weighed', what: 'water', massG: waterG * (run.water ?? 1) }],
    [3, { type: 'weighed', what: 'powder', massG: powderG * (run.powder ?? 1) }],
    ...told,
    ...secondBowl.map(([later, body]): [number, EventBody] => [full + (run.secondMin ?? 0) + later, body]),
    ...(run.early ?? []).map((body): [number, EventBody] => [full + 0.1, body]),
    ...(run.late ?? []).map((body): [number, EventBody] => [out + 5, body]),
    ...faults.map((kind): [number, EventBody] => [out + 10, { type: 'defect', kind }]),
    ...(run.told ?? []).map((said): [number, EventBody] => [out + 20, { type: 'recalled', said }]),
  ]
  const live = events.filter(([, body]) => !run.skip?.includes(body.type))
  return fold(
    plan,
    live.map(([atMin, body]) => eventAt(atMin * MIN, body)),
  )
}

const UNTOLD: EventBody['type'][] = ['sift_started', 'sifted', 'soaked', 'tapped', 'weighed']
const twoLayers: Partial<PourPlan> = {
  filling: 'two_stage',
  batching: {
    split: {
      by: 'layers',
      layers: [
        { name: 'First', sharePct: 40 },
        { name: 'Second', sharePct: 60 },
      ],
    },
    bowl: null,
    pourRateMlMin: null,
    scaleCapacityG: null,
  },
}
const bag: Partial<PourPlan> = {
  plaster: {
    ...testPlan('pottery').plaster,
    bag: { bagId: ID, name: 'By the door', boughtG: 25_000, price: null, openDays: 380, keeping: 'damp' },
  },
}
const thinTile: PourPlan = {
  ...planOf('tile'),
  mould: {
    ...planOf('tile').mould,
    members: planOf('tile').mould.members!.map((m) => ({ ...m, thinnestMm: 3 })),
  },
}
const cold: Partial<PourPlan> = { waterTempC: 4, powderTempC: 5, mouldTempC: 3 }
const oven: EventBody = {
  type: 'dries_at',
  spot: { placeId: null, name: 'Oven', air: { tempC: 52, rhPct: 10, speedMS: 1 } },
  lies: 'both_faces',
}

/**
 * Written cases: a pour as it was recorded, what shows on the piece, and what a caster who knows the trade names first
 * (common practice, no source). With two causes either may stand first; none at all is a clean record.
 */
const CASES: [told: string, plan: PourPlan, faults: FaultKind[], run: Run, causes: CauseId[]][] = [
  ['two parts to one, came to 90', planOf('tile'), ['soft'], { water: 1.29 }, ['too_thin']],
  ['edges crumble, 18 % over', planOf('clock'), ['crumbled_edge', 'soft'], { water: 1.18 }, ['too_thin']],
  ['holes where it could not flow', planOf('corbel'), ['voids', 'flow_lines'], { water: 0.8 }, ['too_thick']],
  ['a quarter short of water', planOf('jaw'), ['air_holes'], { water: 0.74 }, ['too_thick']],
  [
    'stirred at once, an ear full of nests',
    planOf('ear'),
    ['lumps', 'air_holes'],
    { soakS: 8 },
    ['soak_short'],
  ],
  ['half a minute of soak', planOf('tile'), ['air_holes'], { soakS: 25 }, ['soak_short']],
  ['the whole cup in at one go', planOf('jug'), ['lumps'], { siftSPerKg: 8 }, ['sifted_fast']],
  [
    'hardly stirred',
    planOf('clock', {}, { material: 'wet_clay' }),
    ['lumps', 'streaks'],
    { stirS: 20 },
    ['stirred_little'],
  ],
  ['stirred on after it thickened', planOf('tile'), ['soft'], { stirS: 900 }, ['stirred_long']],
  ['stirred with the drill', planOf('ammonite'), ['air_holes'], { manner: 'drill' }, ['stirred_hard']],
  ['poured as porridge', planOf('shell'), ['flow_lines', 'voids'], { fullAt: 1.6 }, ['past_working']],
  [
    'the last mould got what had begun to set',
    planOf('urchin'),
    ['short_fill', 'flow_lines'],
    { fullAt: 1.5 },
    ['past_working'],
  ],
  ['from the shoulder down', planOf('tile'), ['air_holes'], { told: ['poured:high'] }, ['poured_high']],
  [
    'the plan left tapping out',
    planOf('clock', { script: { order: [], leftOut: ['tap'] } }),
    ['air_holes'],
    { skip: ['tapped'] },
    ['no_tap'],
  ],
  [
    'not tapped, as she says',
    planOf('clock'),
    ['voids'],
    { skip: ['tapped'], told: ['tapped:none'] },
    ['no_tap'],
  ],
  [
    'fingers missing, nothing done about them',
    planOf('ear'),
    ['voids'],
    { told: ['air:none'] },
    ['air_in_form'],
  ],
  [
    'ran out at the seam',
    planOf('jug'),
    ['short_fill'],
    { early: [{ type: 'leaked', plug: 'clay', lostMl: 400 }] },
    ['leaked'],
  ],
  [
    'one bowl too little',
    planOf('tile', { sparePct: 0 }),
    ['short_fill'],
    { water: 0.84, powder: 0.84, early: [{ type: 'ran_short', missingMl: 60 }] },
    ['mixed_short'],
  ],
  [
    'measured with water and not drained',
    planOf('tile', {}),
    ['soft', 'streaks'],
    { ticked: ['wash_and_look'], told: ['mould_dry:wet'] },
    ['water_film'],
  ],
  ['water stood on the back', planOf('tile'), ['soft'], { told: ['water_on_top:stood'] }, ['water_film']],
  [
    'last week’s crumbs in the bowl',
    planOf('corbel'),
    ['lumps', 'flow_lines'],
    { told: ['bowl:crumbs'] },
    ['dirty_bowl'],
  ],
  ['last year’s bag by the door', planOf('tile', bag), ['soft', 'lumps'], {}, ['old_bag']],
  ['lumps in the bag', planOf('jaw'), ['lumps', 'soft'], { told: ['powder:lumpy'] }, ['old_bag']],
  ['white fur, mixed with sea water', planOf('tile', { water: 'sea' }), ['crystals'], {}, ['salts']],
  ['a shed in the frost', planOf('tile', cold), ['soft', 'crumbled_edge'], {}, ['cold']],
  [
    'a print in cold wet ground',
    planOf('ripple', { mouldTempC: 4 }),
    ['soft'],
    { told: ['ground:wet'] },
    ['ground_cold'],
  ],
  [
    'a print in standing water',
    planOf('ripple'),
    ['soft', 'crumbled_edge'],
    { told: ['ground:wet'] },
    ['ground_cold'],
  ],
  [
    'blue paint by the cup',
    planOf('tile', adding({ id: 'liquid_paint', pct: 8 })),
    ['streaks', 'soft'],
    {},
    ['colour_split'],
  ],
  [
    'slowed with citric acid',
    planOf('tile', adding({ id: 'citric_acid', pct: 0.1 })),
    ['soft'],
    {},
    ['additions_weaken'],
  ],
  ['pushed along the bench as it set', planOf('clock'), ['crack'], { told: ['moved:moved'] }, ['moved']],
  [
    'no soap in the plaster mould',
    planOf('jug', {}, { material: 'plaster' }),
    ['stuck'],
    {
      ticked: ['wash_and_look'],
      skip: ['demoulded'],
      late: [{ type: 'demoulded', outcome: 'damaged', gripped: true }],
    },
    ['release_missing'],
  ],
  ['grease in smears', planOf('clock'), ['streaks'], { told: ['release:smeared'] }, ['release_smeared']],
  [
    'numerals full of grease',
    planOf('clock'),
    ['detail_lost'],
    { told: ['release:thick'] },
    ['release_thick'],
  ],
  [
    'a hook in a hard mould',
    planOf('jaw', {}, { material: 'metal', flex: 'rigid', oneTime: false, undercut: 'deep' }),
    ['stuck', 'broke'],
    {},
    ['undercut_forced'],
  ],
  ['three millimetres of tile', thinTile, ['broke'], {}, ['thin_section']],
  [
    'second bowl on the first, which had set',
    planOf('clock', twoLayers),
    ['flow_lines'],
    { secondMin: 45 },
    ['layers_late'],
  ],
  ['thick back, thin rim', planOf('shell'), ['crack', 'warped'], { told: ['wall:uneven'] }, ['uneven_wall']],
  ['out at half the time', planOf('ammonite'), ['crumbled_edge', 'warped'], { outAt: 0.5 }, ['early_out']],
  ['pressed out warm and early', planOf('tile'), ['broke'], { outAt: 0.55 }, ['early_out']],
  [
    'little balls where the rubber is torn',
    planOf('ammonite'),
    ['bumps'],
    { late: [{ type: 'mould_damage', mouldId: ID, kind: 'tear' }] },
    ['mould_flaws'],
  ],
  [
    'brown where the bare box touched it',
    planOf('jug'),
    ['stains'],
    { told: ['sealed:bare'] },
    ['mould_colours'],
  ],
  [
    'the gel waited for the plaster',
    planOf('ear'),
    ['off_size'],
    { ticked: ['pick_out_crumbs'] },
    ['gel_shrank'],
  ],
  ['cast the day after', planOf('ear'), ['off_size', 'warped'], { told: ['gel:old'] }, ['gel_shrank']],
  ['a day in the gel', planOf('ear'), ['soft'], { outAt: 40, ticked: ['all'] }, ['gel_softens']],
  ['chalky after the oven', planOf('tile'), ['soft'], { late: [oven] }, ['dried_hot']],
  [
    'bent, lying on its back',
    planOf('tile', { dryingExposure: 'one_face' }),
    ['warped'],
    {},
    ['dried_uneven'],
  ],
  ['dropped on the way to the rack', planOf('corbel'), ['broke'], { told: ['knocked:knocked'] }, ['knocked']],
  // Two at once.
  [
    'thin, and out early',
    planOf('tile'),
    ['soft', 'broke'],
    { water: 1.25, outAt: 0.55 },
    ['too_thin', 'early_out'],
  ],
  [
    'no soak, no tap',
    planOf('clock'),
    ['air_holes', 'lumps'],
    { soakS: 10, tapS: 0 },
    ['soak_short', 'no_tap'],
  ],
  [
    'leaked, and fingers full of air',
    planOf('jaw'),
    ['short_fill', 'voids'],
    { early: [{ type: 'leaked', plug: 'clay', lostMl: 25 }], told: ['air:none'] },
    ['leaked', 'air_in_form'],
  ],
  [
    'drill, and a bag gone off',
    planOf('tile', bag),
    ['air_holes', 'soft'],
    { manner: 'drill' },
    ['stirred_hard', 'old_bag'],
  ],
  [
    'sea water, and dried on its back',
    planOf('tile', { water: 'sea', dryingExposure: 'one_face' }),
    ['crystals', 'warped'],
    {},
    ['salts', 'dried_uneven'],
  ],
  [
    'thick grease, torn rubber',
    planOf('clock'),
    ['detail_lost', 'bumps'],
    { told: ['release:thick', 'mould_whole:flawed'] },
    ['release_thick', 'mould_flaws'],
  ],
  // Half of the record missing.
  [
    'nothing kept but that it was not soaked',
    planOf('tile'),
    ['lumps'],
    { skip: UNTOLD, told: ['soaked:none'] },
    ['soak_short'],
  ],
  [
    'weighed, and nothing after it',
    planOf('jaw'),
    ['soft'],
    { water: 1.3, skip: ['sifted', 'soaked', 'stirred', 'poured', 'tapped'] },
    ['too_thin'],
  ],
  [
    'unweighed, and it looked thin',
    planOf('ripple'),
    ['soft', 'crumbled_edge'],
    { skip: UNTOLD, told: ['ratio:thin'] },
    ['too_thin'],
  ],
  [
    'no times, only the drill',
    planOf('corbel'),
    ['air_holes'],
    { skip: UNTOLD, manner: 'drill' },
    ['stirred_hard'],
  ],
  [
    'thickening, as he remembers',
    planOf('urchin'),
    ['flow_lines'],
    { skip: [...UNTOLD, 'poured', 'stirred'], told: ['flowing:thickening'] },
    ['past_working'],
  ],
  // Clean ones.
  ['pinholes in a tile by the book', planOf('tile'), ['air_holes'], {}, []],
  ['a print by the book', planOf('ripple'), ['voids'], {}, []],
  ['an ear by the book', planOf('ear'), ['soft'], { ticked: ['all'] }, []],
  ['latex with hooks, nothing ticked', planOf('corbel', {}, { airTraps: ['hooks'] }), ['voids'], {}, []],
  ['a box of which half was recorded', planOf('clock'), ['crack'], { skip: UNTOLD }, []],
  [
    'poured and out, nothing else',
    planOf('jaw'),
    ['air_holes'],
    { skip: [...UNTOLD, 'stirred', 'mould_ready'] },
    [],
  ],
  ['a shell by the book', planOf('shell'), ['crack'], {}, []],
]

export interface JudgedCase {
  told: string
  kind: MouldKind
  /** What a caster names; none is a clean record. */
  causes: CauseId[]
  found: Diagnosis
  /** Causes as they were found, the likeliest first. */
  names: CauseId[]
}

export const judgedCases = (): JudgedCase[] =>
  CASES.map(([told, plan, faults, run, causes]) => {
    const found = diagnosePour(pourOf(plan, faults, run))
    return { told, kind: plan.mould.kind, causes, found, names: found.causes.map((c) => c.cause) }
  })

/** How many of the cases are named rightly: shares of the faulty ones, and of all. */
export function casesShares(judged: readonly JudgedCase[]): {
  first: number
  amongThree: number
  clean: number
} {
  const faulty = judged.filter((c) => c.causes.length > 0)
  const share = <T>(of: readonly T[], holds: (one: T) => boolean) => of.filter(holds).length / of.length
  return {
    first: share(faulty, (c) => c.causes.includes(c.names[0]!)),
    amongThree: share(faulty, (c) => c.causes.every((x) => c.names.slice(0, 3).includes(x))),
    clean: share(judged, (c) => c.found.clean === (c.causes.length === 0)),
  }
}
