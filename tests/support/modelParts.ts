import { diceOf } from '../../devices/dice'
import { FAULT_KINDS, SIGN, SIGNS, diagnose, type SignReadings } from '../../core/finish'
import { profileFromSvg, profileToCsv, profileToSvg } from '../../core/formats'
import {
  SHAPE_KINDS,
  WAYS,
  cavityVolumeMl,
  extentOfMethod,
  findVolume,
  halfSection,
  slabMmOf,
  type CavityShape,
  type Figure,
  type ProfileNode,
  type VolumeMethod,
} from '../../core/mould'
import {
  ADDITIONS,
  ADDITION_IDS,
  PLASTER_CLASS_IDS,
  WATER_KINDS,
  blend,
  checkAdditions,
  timingOf,
  weighAdditions,
} from '../../core/plaster'
import { refusalsOf } from '../../core/pour'
import { SET_TESTS, propertiesOfCard, sourcesOfCard, spoonTestForecastS } from '../../core/stock'

import {
  formatArea,
  formatDensity,
  formatLength,
  formatMass,
  formatMassOther,
  formatRoughMass,
  formatRoughVolume,
  formatShortLength,
  formatStrength,
  formatTemp,
  formatTempStep,
  formatVolume,
  formatVolumeRange,
} from '../../core/units'
import { testPlan } from '../unit/plans'

/** What the models of the shelf and of what went wrong say of figures thrown by dice: no pour comes to all of them. */

const SEED = 7203
let dice = diceOf(SEED)
const between = (low: number, high: number) => low + (high - low) * dice()
const any = <T>(of: readonly T[]): T => of[Math.floor(dice() * of.length)]!
const times = <T>(n: number, make: (i: number) => T) => Array.from({ length: n }, (_, i) => make(i))

const LENGTHS = ['length', 'width', 'depth', 'thickness', 'cornerRadius', 'diameter', 'topDiameter']
const MORE_LENGTHS = [
  'bottomDiameter',
  'rimDiameter',
  'footDiameter',
  'outerDiameter',
  'innerDiameter',
  'side',
]
/** More figures than it needs: it takes its own. */
const anyShape = (kind: CavityShape['kind']) => ({
  kind,
  sides: any([3, 4, 6, 8]),
  ...Object.fromEntries([...LENGTHS, ...MORE_LENGTHS].map((name) => [`${name}Mm`, between(8, 160)])),
})
const anyProfile = (): ProfileNode[] =>
  times(6, (i) => ({ radiusMm: i === 0 ? 0 : between(30, 80), heightMm: 20 * i, smooth: dice() < 0.4 }))
/** What lies so far inside of it, its floor as thick. */
const within = (outer: readonly ProfileNode[], mm: number): ProfileNode[] =>
  outer.map((node, i) => ({
    ...node,
    radiusMm: Math.max(0, node.radiusMm - mm),
    heightMm: node.heightMm + (i === outer.length - 1 ? 0 : mm / 2),
  }))
/** A pot, solid or with a wall, full or not. */
function anyPot(): VolumeMethod {
  const outer = anyProfile()
  const inner = dice() < 0.7 ? within(outer, between(4, 14)) : []
  return { by: 'profile', outer, inner, fillHeightMm: dice() < 0.5 ? null : between(40, 110) }
}

const THROW: { [Is in Figure['is']]: (figure: Extract<Figure, { is: Is }>) => unknown } = {
  number: ({ min, max }) => between(min, Math.min(max, min + 400)),
  number_or_none: ({ min, max }) => (dice() < 0.3 ? null : between(min, Math.min(max, min + 100))),
  one_of: ({ of }) => any(of),
  yes_no: () => dice() < 0.5,
  profile: anyProfile,
  shape: () => anyShape(any(SHAPE_KINDS)),
}

function anyMethod({ by, figures }: { by: string; figures: Record<string, Figure> }) {
  const thrown = Object.entries(figures).map(([name, figure]) => [name, THROW[figure.is](figure as never)])
  return { by, ...Object.fromEntries(thrown) } as VolumeMethod
}

function anyCard() {
  const or = <T>(value: T) => (dice() < 0.4 ? null : value)
  return {
    classId: any(PLASTER_CLASS_IDS),
    consistency: or(between(25, 90)),
    range: or({ low: between(25, 40), high: between(45, 90) }),
    setMin: or(between(6, 50)),
    setTest: any(SET_TESTS),
    expansionPct: or(between(0.05, 0.4)),
    dryStrengthMPa: or(between(1, 120)),
  }
}
const anyAddition = () => {
  const id = any(ADDITION_IDS)
  return { id, pct: between(0, ADDITIONS[id].maxPct) }
}

/** Some of the signs there are, each within what it may say and a little beyond. */
const anyReadings = (): SignReadings =>
  Object.fromEntries(
    SIGNS.filter(() => dice() < 0.5).map((sign) => {
      const at = SIGN[sign].worth.map(([value]) => value)
      return [sign, { value: dice() < 0.5 ? any(at) : between(0.9 * at[0]!, 1.1 * at.at(-1)!) }]
    }),
  )

/** Each figure of a plan put where it may not be, one after the other. */
function limits() {
  const found: unknown[] = []
  const plan = testPlan('pottery', {
    batching: {
      split: { by: 'bowls', count: 2 },
      bowl: { name: 'x', volumeMl: 900, tareG: 90 },
      pourRateMlMin: 900,
      scaleCapacityG: 900,
    },
    taps: { coldTempC: 10, hotTempC: 50, targetTempC: 20 },
    hands: 1,
    mouldTempC: 20,
    dryingPlace: { placeId: 'x', name: 'x', air: { tempC: 20, rhPct: 50, speedMS: 0.1 } },
  })
  const walk = (of: Record<string, unknown>) => {
    for (const [key, value] of Object.entries(of)) {
      if (typeof value === 'number')
        for (const wrong of [-1e9, -1, 0, 0.01, 0.4, 2, 25, 61, 99, 350, 5000, 1e9]) {
          of[key] = wrong
          found.push(refusalsOf(plan))
          of[key] = value
        }
      else if (value && typeof value === 'object') walk(value as Record<string, unknown>)
    }
  }
  walk(plan as never)
  return found
}

/** Amounts from crumbs to lorries, as they are written. */
const written = () =>
  [0.004, 0.07, 0.6, 3.3, 18, 99.6, 101.4, 113.5, 460, 1234.5, 9999, 25_400, 880_000].map((n) => [
    (['metric', 'us'] as const).flatMap((system) => [
      ...[0.01, 0.1, 1, 5, 28.35].flatMap((scaleDivisionG) => {
        const prefs = { system, scaleDivisionG }
        return [formatMass(n, prefs), formatMassOther(n, prefs), formatRoughMass(n, prefs)]
      }),
      formatVolume(n, system),
      formatVolumeRange(n, 0.1 * n, system),
      formatRoughVolume(n, system),
      formatArea(100 * n, system),
      formatTemp(n / 10, system),
      formatTempStep(n / 10, system),
      formatShortLength(n, system),
      formatLength(n, system),
      formatDensity(n, system),
      formatStrength(n, system),
    ]),
  ])

export function partFigures(): Record<string, Record<string, unknown>> {
  dice = diceOf(SEED)
  const volumes = WAYS.map((way) => {
    const methods = times(way.by === 'shape' || way.by === 'displacement' ? 40 : 12, () =>
      way.by === 'profile' ? anyPot() : anyMethod(way),
    )
    return [way.by, methods.map((m) => [findVolume(m), extentOfMethod(m), slabMmOf(m)])]
  })
  const cards = times(30, anyCard).map((card) => {
    const properties = propertiesOfCard(card)
    const additions = times(Math.floor(between(0, 4)), anyAddition)
    const water = any(WATER_KINDS)
    const blended = blend(properties, additions, water)
    return [
      properties,
      sourcesOfCard(card),
      blended,
      weighAdditions(additions, 1000, 700),
      checkAdditions(additions, water),
      additions.map(timingOf),
      spoonTestForecastS(blended, { consistency: blended.useConsistency, waterTempC: 16, stirS: 60 }),
    ]
  })
  const faults = times(60, () =>
    diagnose(
      times(2, () => any(FAULT_KINDS)),
      anyReadings(),
    ),
  )
  const drawn = times(6, anyProfile).map((p) => {
    const svg = profileToSvg(p)
    return [svg, profileFromSvg(svg), profileToCsv(p)]
  })
  const shapes = SHAPE_KINDS.flatMap((kind) => times(4, () => anyShape(kind) as CavityShape))
  return {
    'Ways to a volume': Object.fromEntries(volumes),
    'Cards and signs': {
      cards,
      faults,
      profiles: drawn,
      written: written(),
      limits: limits(),
      shapes: shapes.map((s) => [cavityVolumeMl(s), halfSection(s)]),
    },
  }
}
