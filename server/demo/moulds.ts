import { usualFacts, type CavityDescription, type MouldFacts, type VolumeMethod } from '../../core/mould'
import type { MouldInput } from '../../shared/moulds'
import type { DEMO_PLASTERS } from './plasters'

type DemoMould = Omit<MouldInput, 'usualPlasterId'> & { plaster: keyof typeof DEMO_PLASTERS }

const cavity = (first: VolumeMethod, more: Partial<CavityDescription> = {}): CavityDescription => ({
  parts: [{ role: 'add', count: 1, method: first }],
  cavities: 1,
  check: null,
  trust: 'parts',
  ...more,
})
const water = (massG: number): VolumeMethod => ({
  by: 'water_fill',
  reading: 'weighed',
  massG,
  volumeMl: massG,
  waterTempC: 16,
})
const facts = (material: MouldFacts['material'], change: Partial<MouldFacts> = {}): MouldFacts => ({
  ...usualFacts(material),
  ...change,
})

function mould(
  name: string,
  purpose: DemoMould['purpose'],
  plaster: DemoMould['plaster'],
  thicknessMm: number,
  note: string,
  of: Pick<DemoMould, 'facts' | 'volume'> & Partial<Pick<DemoMould, 'castsBefore' | 'lifeCasts' | 'isSpill'>>,
): DemoMould {
  return { name, purpose, plaster, thicknessMm, note, castsBefore: 0, lifeCasts: null, isSpill: false, ...of }
}

/** Half profile of a dome with its rim up: [radius, height, smooth] in mm. */
const profile = (...nodes: [number, number, boolean?][]): VolumeMethod => ({
  by: 'profile',
  outer: nodes.map(([radiusMm, heightMm, smooth = false]) => ({ radiusMm, heightMm, smooth })),
  inner: [],
  fillHeightMm: null,
})

/** The shelf of Saltmarsh Shed: every way of finding a volume is on it. */
export const DEMO_MOULDS = {
  ripple: mould('Ripple dam, 300 mm ring', 'print', 'moulding', 25, 'Steel ring pushed into the flat.', {
    facts: facts('sand_soil', { airTraps: ['fine_texture'] }),
    volume: cavity({
      by: 'ground',
      dam: 'ring',
      diameterMm: 300,
      lengthMm: 300,
      widthMm: 300,
      printDepthMm: 12,
      printSharePct: 60,
      coverMm: 25,
      ground: 'damp',
    }),
  }),
  tile: mould('Chart tile, silicone', 'tile', 'moulding', 18, 'Relief chart of the estuary, sixteen tiles.', {
    facts: facts('silicone', { airTraps: ['lettering', 'fine_texture'] }),
    volume: cavity(
      {
        by: 'shape',
        shape: { kind: 'slab', lengthMm: 152, widthMm: 152, thicknessMm: 18, cornerRadiusMm: 4 },
      },
      { check: water(410), trust: 'check' },
    ),
    castsBefore: 64,
  }),
  ammonite: mould('Ammonite, silicone', 'figure', 'hard', 32, 'Deep whorl: air sits in the middle.', {
    facts: facts('silicone', { undercut: 'slight', airTraps: ['deep_fingers', 'fine_texture'] }),
    volume: cavity(profile([0, 6, true], [16, 0, true], [36, 5, true], [52, 20, true], [50, 38.5]), {
      check: water(265),
      trust: 'check',
    }),
    castsBefore: 22,
  }),
  urchin: mould('Sea urchin, two-part silicone', 'figure', 'cement', 45, 'Keys on the seam, tape over it.', {
    facts: facts('silicone', {
      build: 'cut_open',
      support: 'mother_mould',
      opening: 'narrow',
      undercut: 'deep',
      airTraps: ['flat_ceiling', 'fine_texture'],
    }),
    volume: cavity(
      profile([0, 0, true], [32, 8, true], [50.5, 32, true], [34.5, 57, true], [12, 64], [12, 74]),
      {
        check: water(340),
        trust: 'check',
      },
    ),
    castsBefore: 9,
  }),
  jug: mould(
    'Lamp-oil jug, half a slip mould',
    'slip_mould',
    'pottery',
    50,
    'Cottle boards, 40 mm all round.',
    {
      facts: facts('wood', { build: 'parts' }),
      volume: {
        parts: [
          {
            role: 'add',
            count: 1,
            method: { by: 'shape', shape: { kind: 'box', lengthMm: 250, widthMm: 180, depthMm: 80 } },
          },
          {
            role: 'subtract',
            count: 1,
            method: {
              by: 'shape',
              shape: { kind: 'half_round', lengthMm: 170, diameterMm: 100, depthMm: 50 },
            },
          },
        ],
        cavities: 1,
        check: null,
        trust: 'parts',
      },
    },
  ),
  clock: mould('Tide-clock face, box', 'tile', 'pottery', 35, '400 by 220 mm, numerals in clay.', {
    facts: facts('wood', { airTraps: ['lettering'] }),
    volume: cavity({
      by: 'shape',
      shape: { kind: 'box', lengthMm: 400, widthMm: 220, depthMm: 35 },
    }),
  }),
  clockBack: mould('Tide-clock back, second layer', 'tile', 'pottery', 12, 'Hides the hanging bars.', {
    facts: facts('wood'),
    volume: cavity({
      by: 'top_up',
      outline: 'rectangle',
      lengthMm: 400,
      widthMm: 220,
      diameterMm: 200,
      areaMm2: 88_000,
      depthMm: 12,
      below: 'set_today',
    }),
  }),
  ear: mould('Ear, alginate pot', 'figure', 'moulding', 22, 'For the listening exhibit.', {
    facts: facts('alginate', { undercut: 'deep', airTraps: ['hooks', 'deep_fingers'] }),
    volume: cavity({
      by: 'displacement',
      container: 'round',
      diameterMm: 130,
      lengthMm: 130,
      widthMm: 130,
      fillDepthMm: 110,
      object: 'displaced',
      displacedMl: 95,
      typical: 'ear',
      objectWidthMm: 70,
      objectDepthMm: 60,
      gelRatio: 'by_volume',
      gelPowderGPer100Ml: 25,
      gelWorkMin: 3,
    }),
  }),
  jaw: mould(
    'Seal’s jaw, impression tray',
    'dental',
    'stone',
    16,
    'Impression taken from the museum’s jaw.',
    {
      facts: facts('impression_compound', { undercut: 'slight', airTraps: ['deep_fingers'] }),
      volume: cavity(
        { by: 'shape', shape: { kind: 'half_round', lengthMm: 92, diameterMm: 70, depthMm: 35 } },
        { check: { ...water(180), reading: 'measured', volumeMl: 180 } as VolumeMethod, trust: 'check' },
      ),
    },
  ),
  shell: mould('Urchin shell for glass', 'shell', 'shell', 65, 'Wax lost, then to the glass kiln.', {
    facts: facts('wet_clay', { airTraps: ['fine_texture'] }),
    volume: cavity({
      by: 'shell',
      object: 'ball',
      lengthMm: 100,
      widthMm: 100,
      diameterMm: 100,
      heightMm: 60,
      areaMm2: 20_000,
      thicknessMm: 65,
      onBoard: true,
      layerMm: 22,
      batchMl: 1200,
    }),
  }),
  corbel: mould('Corbel, latex and jacket', 'figure', 'cement', 60, 'Jacket in two halves, wing nuts.', {
    facts: facts('latex', { undercut: 'deep', airTraps: ['vertical_faces'] }),
    volume: cavity(
      { by: 'weighed_cast', massG: 9150, state: 'wet', classId: 'gc', consistency: 45 },
      {
        check: {
          by: 'shape',
          shape: { kind: 'frustum', topDiameterMm: 245, bottomDiameterMm: 110, depthMm: 200 },
        },
        trust: 'both',
      },
    ),
    castsBefore: 11,
  }),
  egg: mould('Gull’s egg, plastic halves', 'prop', 'moulding', 30, 'Breaks on purpose, for the nest scene.', {
    facts: facts('rigid_plastic', { build: 'parts', opening: 'narrow' }),
    volume: cavity(
      { by: 'dry_fill', grain: 'rice', pouredMl: 62, narrowestMm: 44 },
      {
        check: profile([0, 0, true], [17, 7, true], [23, 26, true], [16, 48, true], [4, 60], [4, 66]),
        trust: 'both',
      },
    ),
  }),
  limpet: mould('Limpet, silicone', 'figure', 'hard', 14, 'Takes the last of a bowl.', {
    facts: facts('silicone', { airTraps: ['fine_texture'] }),
    volume: cavity({
      by: 'shape',
      shape: { kind: 'frustum', topDiameterMm: 54, bottomDiameterMm: 10, depthMm: 28 },
    }),
    isSpill: true,
    castsBefore: 31,
  }),
  cockle: mould('Cockle, silicone', 'figure', 'hard', 16, 'Four in a row; children take them home.', {
    facts: facts('silicone', { airTraps: ['fine_texture'] }),
    volume: cavity({ by: 'shape', shape: { kind: 'bowl', rimDiameterMm: 56, depthMm: 22 } }),
    isSpill: true,
    castsBefore: 17,
  }),
} satisfies Record<string, DemoMould>

export type DemoMouldKey = keyof typeof DEMO_MOULDS

/** Moulds of the shed that are poured together. */
export const DEMO_SETS: { name: string; members: [DemoMouldKey, number][] }[] = [
  {
    name: 'Touch table, one of each',
    members: [
      ['ammonite', 1],
      ['urchin', 1],
      ['cockle', 4],
    ],
  },
]
