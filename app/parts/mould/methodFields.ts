import { LEAST_VOLUME_ML, MOST_VOLUME_ML, MOST_WEIGHED_G } from '#core/bounds'
import {
  GRAINS,
  GROUND_FIRMNESS,
  LAYERS_BELOW,
  SHAPE_KINDS,
  TYPICAL_PARTS,
  type CavityShape,
  type VolumeMethod,
} from '#core/mould'
import { PLASTER_CLASS_IDS } from '#core/plaster'
import type { QuantityKind } from '#core/units'
import { BELOW_WORDS, GRAIN_WORDS, GROUND_WORDS, PART_WORDS, SHAPE_WORDS } from '~/parts/words/mould'
import { PLASTER_CLASS_WORDS } from '~/parts/words/plaster'

/** What a way of finding a volume asks for, in the order of asking. Paths are those of the method. */
export type MethodField =
  | {
      is: 'quantity'
      path: string
      label: string
      quantity: QuantityKind
      min: number
      max: number
      suffix?: string
      decimals?: number
    }
  | { is: 'choice' | 'list'; path: string; label: string; options: { value: string; label: string }[] }

const quantity =
  (kind: QuantityKind, least: number, most: number) =>
  (path: string, label: string, min = least, max = most): MethodField => ({
    is: 'quantity',
    path,
    label,
    quantity: kind,
    min,
    max,
  })
const length = quantity('length', 1, 5000)
const volume = quantity('volume', LEAST_VOLUME_ML, MOST_VOLUME_ML)
const mass = quantity('mass', 1, MOST_WEIGHED_G)
const area = quantity('area', 100, 1e8)

const choice = (path: string, label: string, words: Record<string, string>): MethodField => ({
  is: 'choice',
  path,
  label,
  options: Object.entries(words).map(([value, word]) => ({ value, label: word })),
})
const wordsOf = <K extends string>(keys: readonly K[], words: Record<K, string>): Record<string, string> =>
  Object.fromEntries(keys.map((k) => [k, words[k]]))

function shapeFields(shape: CavityShape): MethodField[] {
  const depth = length('shape.depthMm', 'Depth to the fill')
  switch (shape.kind) {
    case 'box':
      return [length('shape.lengthMm', 'Length inside'), length('shape.widthMm', 'Width inside'), depth]
    case 'slab':
      return [
        length('shape.lengthMm', 'Length inside'),
        length('shape.widthMm', 'Width inside'),
        length('shape.thicknessMm', 'Thickness'),
        length('shape.cornerRadiusMm', 'Corner radius', 0),
      ]
    case 'cylinder':
      return [length('shape.diameterMm', 'Across inside'), depth]
    case 'frustum':
      return [
        length('shape.topDiameterMm', 'Across the top'),
        length('shape.bottomDiameterMm', 'Across the bottom', 0),
        depth,
      ]
    case 'bowl':
      return [length('shape.rimDiameterMm', 'Across the rim'), depth]
    case 'footed_bowl':
      return [
        length('shape.rimDiameterMm', 'Across the rim'),
        length('shape.footDiameterMm', 'Across the foot'),
        depth,
      ]
    case 'ring':
      return [
        length('shape.outerDiameterMm', 'Across outside'),
        length('shape.innerDiameterMm', 'Across the hole'),
        depth,
      ]
    case 'half_round':
      return [length('shape.lengthMm', 'Length inside'), length('shape.diameterMm', 'Across'), depth]
    case 'prism':
      return [
        {
          is: 'quantity',
          path: 'shape.sides',
          label: 'Sides',
          quantity: 'number',
          min: 3,
          max: 24,
          decimals: 0,
        },
        length('shape.sideMm', 'Length of a side'),
        depth,
      ]
  }
}

export function fieldsOf(method: VolumeMethod, showVolume: (volumeMl: number) => string): MethodField[] {
  switch (method.by) {
    case 'known':
      return [
        volume('volumeMl', 'It holds'),
        {
          is: 'quantity',
          path: 'plusMinusPct',
          label: 'Give or take',
          quantity: 'number',
          min: 0,
          max: 50,
          suffix: '%',
        },
      ]
    case 'water_fill':
      return [
        choice('reading', 'The water was', { weighed: 'Weighed', measured: 'Measured in a jug' }),
        method.reading === 'weighed'
          ? mass('massG', 'Water that went in')
          : volume('volumeMl', 'Water that went in'),
        ...(method.reading === 'weighed'
          ? [
              {
                is: 'quantity',
                path: 'waterTempC',
                label: 'Its temperature',
                quantity: 'temp',
                min: 0,
                max: 60,
              } as const,
            ]
          : []),
      ]
    case 'dry_fill':
      return [
        choice('grain', 'Filled with', wordsOf(Object.keys(GRAINS) as (keyof typeof GRAINS)[], GRAIN_WORDS)),
        volume('pouredMl', 'Poured out, in the jug'),
        length('narrowestMm', 'Narrowest inside'),
      ]
    case 'shape':
      return shapeFields(method.shape)
    case 'profile':
      return []
    case 'ground':
      return [
        choice('dam', 'The dam', { ring: 'Ring', frame: 'Frame' }),
        ...(method.dam === 'ring'
          ? [length('diameterMm', 'Across the ring')]
          : [length('lengthMm', 'Frame, length'), length('widthMm', 'Frame, width')]),
        length('printDepthMm', 'Deepest of the print', 0),
        {
          is: 'quantity',
          path: 'printSharePct',
          label: 'Print takes up',
          quantity: 'number',
          min: 0,
          max: 100,
          suffix: '% of it',
          decimals: 0,
        },
        length('coverMm', 'Cover over the highest point'),
        choice(
          'ground',
          'The ground',
          wordsOf(Object.keys(GROUND_FIRMNESS) as (keyof typeof GROUND_FIRMNESS)[], GROUND_WORDS),
        ),
      ]
    case 'displacement':
      return [
        choice('container', 'The container', { round: 'Round', square: 'Square' }),
        ...(method.container === 'round'
          ? [length('diameterMm', 'Across inside')]
          : [length('lengthMm', 'Length inside'), length('widthMm', 'Width inside')]),
        length('fillDepthMm', 'Gel fills to'),
        choice('object', 'What goes in', { displaced: 'By displaced water', typical: 'By typical size' }),
        method.object === 'displaced'
          ? volume('displacedMl', 'Water it displaces')
          : {
              is: 'list',
              path: 'typical',
              label: 'What it is',
              options: Object.keys(TYPICAL_PARTS).map((value) => ({
                value,
                label: PART_WORDS[value as keyof typeof TYPICAL_PARTS],
              })),
            },
        length('objectWidthMm', 'Its width'),
        length('objectDepthMm', 'How deep it reaches'),
        choice('gelRatio', 'The gel is mixed', { by_volume: '1 : 1 by volume', by_label: 'By its label' }),
        ...(method.gelRatio === 'by_label'
          ? [
              {
                is: 'quantity',
                path: 'gelPowderGPer100Ml',
                label: `Powder to ${showVolume(100)} of water`,
                quantity: 'mass',
                min: 1,
                max: 200,
              } as const,
            ]
          : []),
        {
          is: 'quantity',
          path: 'gelWorkMin',
          label: 'Its working time',
          quantity: 'number',
          min: 0.5,
          max: 30,
          suffix: 'min',
          decimals: 1,
        },
      ]
    case 'shell':
      return [
        choice('object', 'Around', { block: 'Block', round: 'Round', ball: 'Ball', area: 'By its area' }),
        ...(method.object === 'block'
          ? [length('lengthMm', 'Its length'), length('widthMm', 'Its width')]
          : method.object === 'area'
            ? [area('areaMm2', 'Area to cover')]
            : [length('diameterMm', 'Its diameter')]),
        ...(method.object === 'block' || method.object === 'round' ? [length('heightMm', 'Its height')] : []),
        length('thicknessMm', 'Thickness of the shell', 0, 500),
        length('layerMm', 'One layer', 1, 500),
        volume('batchMl', 'One bowl gives', 50, 100_000),
        ...(method.object === 'area'
          ? []
          : [choice('onBoard', 'It stands', { true: 'On a board', false: 'Free' })]),
      ]
    case 'top_up':
      return [
        choice('outline', 'The outline', { rectangle: 'Rectangle', round: 'Round', area: 'By its area' }),
        ...(method.outline === 'rectangle'
          ? [length('lengthMm', 'Length inside'), length('widthMm', 'Width inside')]
          : method.outline === 'round'
            ? [length('diameterMm', 'Across inside')]
            : [area('areaMm2', 'Area')]),
        length('depthMm', 'Depth of the layer'),
        choice('below', 'The layer below is', wordsOf(LAYERS_BELOW, BELOW_WORDS)),
      ]
    case 'weighed_cast':
      return [
        mass('massG', 'The cast weighs'),
        choice('state', 'It is', { dry: 'Dry', wet: 'Just out, wet' }),
        {
          is: 'list',
          path: 'classId',
          label: 'Cast in',
          options: PLASTER_CLASS_IDS.map((value) => ({ value, label: PLASTER_CLASS_WORDS[value] })),
        },
        {
          is: 'quantity',
          path: 'consistency',
          label: 'Mixed at',
          quantity: 'number',
          min: 19,
          max: 200,
          suffix: ': 100',
          decimals: 0,
        },
      ]
  }
}

/** Starting figures of each form: a size one holds in two hands. */
export const FIRST_SHAPES: { [K in CavityShape['kind']]: Extract<CavityShape, { kind: K }> } = {
  box: { kind: 'box', lengthMm: 200, widthMm: 150, depthMm: 40 },
  slab: { kind: 'slab', lengthMm: 400, widthMm: 300, thicknessMm: 45, cornerRadiusMm: 20 },
  cylinder: { kind: 'cylinder', diameterMm: 150, depthMm: 40 },
  frustum: { kind: 'frustum', topDiameterMm: 180, bottomDiameterMm: 120, depthMm: 60 },
  bowl: { kind: 'bowl', rimDiameterMm: 180, depthMm: 60 },
  footed_bowl: { kind: 'footed_bowl', rimDiameterMm: 200, footDiameterMm: 80, depthMm: 70 },
  ring: { kind: 'ring', outerDiameterMm: 200, innerDiameterMm: 120, depthMm: 40 },
  half_round: { kind: 'half_round', lengthMm: 300, diameterMm: 100, depthMm: 50 },
  prism: { kind: 'prism', sides: 6, sideMm: 70, depthMm: 40 },
}
export const shapeOptions = SHAPE_KINDS.map((value) => ({ value, label: SHAPE_WORDS[value] }))

/** Starting figures of each way, so that its picture is never empty. */
export const FIRST_METHODS: { [K in VolumeMethod['by']]: Extract<VolumeMethod, { by: K }> } = {
  known: { by: 'known', volumeMl: 1000, plusMinusPct: 5 },
  water_fill: { by: 'water_fill', reading: 'weighed', massG: 1000, volumeMl: 1000, waterTempC: 15 },
  dry_fill: { by: 'dry_fill', grain: 'rice', pouredMl: 1000, narrowestMm: 40 },
  shape: { by: 'shape', shape: FIRST_SHAPES.box },
  profile: {
    by: 'profile',
    outer: [
      { radiusMm: 0, heightMm: 0, smooth: false },
      { radiusMm: 40, heightMm: 0, smooth: false },
      { radiusMm: 62, heightMm: 35, smooth: true },
      { radiusMm: 70, heightMm: 80, smooth: false },
    ],
    inner: [],
    fillHeightMm: null,
  },
  ground: {
    by: 'ground',
    dam: 'ring',
    diameterMm: 200,
    lengthMm: 250,
    widthMm: 200,
    printDepthMm: 15,
    printSharePct: 40,
    coverMm: 15,
    ground: 'firm',
  },
  displacement: {
    by: 'displacement',
    container: 'round',
    diameterMm: 180,
    lengthMm: 180,
    widthMm: 180,
    fillDepthMm: 220,
    object: 'displaced',
    displacedMl: 400,
    typical: 'hand',
    objectWidthMm: 100,
    objectDepthMm: 180,
    gelRatio: 'by_volume',
    gelPowderGPer100Ml: 25,
    gelWorkMin: 3,
  },
  shell: {
    by: 'shell',
    object: 'round',
    lengthMm: 120,
    widthMm: 120,
    diameterMm: 120,
    heightMm: 90,
    areaMm2: 50_000,
    thicknessMm: 65,
    onBoard: true,
    layerMm: 22,
    batchMl: 2000,
  },
  top_up: {
    by: 'top_up',
    outline: 'rectangle',
    lengthMm: 300,
    widthMm: 200,
    diameterMm: 250,
    areaMm2: 60_000,
    depthMm: 10,
    below: 'set_today',
  },
  weighed_cast: { by: 'weighed_cast', massG: 1180, state: 'dry', classId: 'pottery', consistency: 70 },
}

export function fieldValue(method: VolumeMethod, path: string): unknown {
  return path.split('.').reduce<unknown>((at, key) => (at as Record<string, unknown>)[key], method)
}

/** The method with one value changed; `true` and `false` come from pills as words. */
export function withField(method: VolumeMethod, path: string, value: unknown): VolumeMethod {
  const plain = value === 'true' ? true : value === 'false' ? false : value
  const [first, second] = path.split('.') as [string, string | undefined]
  const changed = method as unknown as Record<string, unknown>
  const inner = second === undefined ? plain : { ...(changed[first] as object), [second]: plain }
  return { ...changed, [first]: inner } as unknown as VolumeMethod
}
