import { randomUUID } from 'node:crypto'
import { mixProperties } from '../../core/mix'
import { keepPlan, outlookFrom, type DeviceChannel, type EventBody, type PourPlan } from '../../core/pour'
import { DEMO_DEVICES, RUBBER_BOWL, inLayers, mixedIn, type MakePlan } from './shed'
import { DAY, HOUR, MIN, demouldedAgo, run, settingDueIn, toEvents, weighings, type Timed } from './timed'

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

export interface DemoPour {
  of: PourPlan
  /** Drawn, of how it came out, so long ago. */
  photo?: { svg: string; agoS: number; who: string; id: string }
  timed: Timed[]
  ageS: number
  /** What is put to it. */
  devices?: { id: (typeof DEMO_DEVICES)[number]['id']; channel: DeviceChannel }[]
}

/** Every pour of the shed. */
export function demoPours(plan: MakePlan): DemoPour[] {
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
  const tileFailed: PourPlan = {
    ...plan('Chart tile A2, the sluice', 'tile'),
    script: { order: [], leftOut: ['tap'] },
  }
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
        // Stirred as soon as the powder was in, and tapping left out of its plan: its record tells why it is full of holes.
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
