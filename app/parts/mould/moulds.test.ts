import { expect, it } from 'vitest'
import { WAYS, findVolume, type VolumeMethod } from '#core/mould'
import { FIRST_SCOOP } from '#core/pour'
import { labelOfClass } from '#core/stock'
import type { MouldSet } from '~~/shared/moulds'
import { mouldInputSchema } from '~~/shared/moulds'
import type { PlasterCard } from '~~/shared/stock'
import { mouldCard } from '~~/tests/support/mouldCard'
import { TEST_SETTINGS } from '../../../tests/unit/plans'
import { SHOWN_WAYS, fieldValue, pictured, sectionOf, shownWay, withField } from './ways'
import { FIRST_SHAPES } from './ways/shape'
import { firstMouldDraft, mouldDraftOf, mouldInputOf, thicknessOf } from './mouldDraft'
import { draftOf } from '~/plan/draft/fromPlan'
import { emptyDraft } from '~/plan/draft/planDraft'
import { firstPrint, newFind } from '~/parts/field/derive'
import type { PackSaid } from '~/parts/field/usePack'
import { firstDraft, mouldChoice, plasterChoice, printChoice, setChoice } from '~/plan/draft/choices'
import { planOf, spillOf } from '~/plan/draft/toPlan'
import { plasterOf } from '~/parts/plaster/plasterChoice'
import { innerFrom, insertAfter, moveNode, removeNode } from './profileEdit'
import { shelfOf, type ShelfQuery } from './shelf'

const plasters: PlasterCard[] = [
  {
    id: 'p1',
    revision: 1,
    name: 'Blue sack',
    label: { ...labelOfClass('pottery'), consistency: 72 },
    printedRatio: '72 parts',
    additions: [],
    note: '',
  },
]
const shelf = { plasters, bags: [], settings: TEST_SETTINGS }
const NOW = Date.parse('2026-06-01')

const moulds = [
  mouldCard('m1', 'Tile', 410, { usualPlasterId: 'p1' }),
  mouldCard('m2', 'Limpet', 26, { isSpill: true }),
  mouldCard('m3', 'Urchin', 340, {
    history: { casts: 60, last: null, damages: [] },
    note: 'keys on the seam',
  }),
]
const mouldSets: MouldSet[] = [
  {
    id: 's1',
    revision: 1,
    name: 'Both',
    members: [
      { mouldId: 'm1', count: 2 },
      { mouldId: 'm3', count: 1 },
    ],
  },
]
const stock = { moulds, mouldSets, ...shelf, bowls: [], places: [] }

it('a worksheet becomes a plan, and the plan the same worksheet again', () => {
  const draft = {
    ...emptyDraft(TEST_SETTINGS),
    piece: 'Tile 1',
    ...mouldChoice(moulds[0]!, shelf),
    shelfCount: 3,
  }
  const plan = planOf(draft, stock, NOW)!
  expect(plan.mould).toMatchObject({ name: 'Tile × 3', cavityMl: 1230, thicknessMm: 18 })
  expect(plan.plaster.properties.useConsistency).toBe(72)
  expect(draftOf(plan, stock)).toEqual(draft)
  expect(planOf({ ...draft, shelfId: 'gone' }, stock, NOW)).toBeUndefined()
  expect(plasterOf({ plasterKey: 'class:gc', bagId: '', additions: [] }, shelf, NOW)?.name).toContain(
    'Gypsum cement',
  )
  // A mould brings its usual plaster, a plaster its own consistency; what is not there changes nothing.
  expect(mouldChoice(moulds[0]!, shelf)).toEqual({
    source: 'shelf',
    shelfId: 'm1',
    coverMm: null,
    plasterKey: 'p1',
    bagId: '',
    additions: [],
    consistency: 72,
    scoop: FIRST_SCOOP,
    addingWay: 'sifted',
  })
  expect(plasterChoice('gone', shelf)).toEqual({})
  expect(firstDraft(stock)).toMatchObject({ source: 'shelf', shelfId: 'm1' })
  expect(firstDraft({ ...stock, moulds: [] })).toEqual(emptyDraft(TEST_SETTINGS))
})

it('a print is planned as it is out there: kneaded out of what was packed, as cold as it is, thinner where it must be', () => {
  const card = mouldCard('print', 'Heron', 300, {
    ...firstPrint({
      name: 'Heron',
      find: { ...newFind('mud', NOW), airTempC: 4 },
      lengthMm: 120,
      widthMm: 80,
      depthMm: 14,
    }),
  })
  const here = { ...stock, moulds: [...moulds, card] }
  const packed = { plasterId: 'p1', consistency: 66, how: 'bags', airTempC: 12 } as PackSaid
  const draft = {
    ...emptyDraft(TEST_SETTINGS),
    ...mouldChoice(card, here),
    ...printChoice(card.find!, packed, here),
    piece: 'Heron',
  }
  const plan = planOf(draft, here, NOW)!
  expect(plan).toMatchObject({
    addingWay: 'kneaded',
    consistency: 66,
    mouldTempC: 4,
    waterTempC: 4,
    air: { tempC: 4 },
  })
  expect(plan.plaster.plasterId).toBe('p1')
  // Nobody has said how cold it is: as it was packed for. What is carried along is water, not ice.
  expect(printChoice({ ...card.find!, airTempC: null }, packed, here)).toMatchObject({ mouldTempC: 12 })
  expect(printChoice({ ...card.find!, airTempC: -6 }, packed, here)).toMatchObject({
    mouldTempC: -6,
    waterTempC: 0,
  })
  const thinner = { ...draft, coverMm: 12 }
  const thin = planOf(thinner, here, NOW)!
  expect(thin.mould.cavityMl).toBeLessThan(plan.mould.cavityMl)
  expect(thin.mould.thicknessMm).toBe(plan.mould.thicknessMm - 13)
  expect(draftOf(thin, here)).toMatchObject({ source: 'shelf', shelfId: 'print', coverMm: 12 })
  expect(mouldChoice(moulds[0]!, here)).toMatchObject({ coverMm: null })
})

it('a set adds its moulds up and comes back as the set', () => {
  const draft = { ...emptyDraft(TEST_SETTINGS), piece: 'Pair', ...setChoice(mouldSets[0]!, stock) }
  const plan = planOf(draft, stock, NOW)!
  expect(plan.mould.cavityMl).toBe(2 * 410 + 340)
  expect(plan.mould.members).toHaveLength(2)
  expect(draftOf(plan, stock)).toMatchObject({ source: 'set', setId: 's1' })
})

it('a plan from before moulds were described comes back as a known volume', () => {
  const plan = planOf({ ...emptyDraft(TEST_SETTINGS), ...mouldChoice(moulds[0]!, shelf) }, stock, NOW)!
  const old = { ...plan.mould }
  delete old.members
  const draft = draftOf({ ...plan, mould: old }, stock)
  expect(draft.source).toBe('describe')
  expect(planOf(draft, stock, NOW)!.mould).toMatchObject({ cavityMl: 410, thicknessMm: 18 })
})

it('a described mould brings its own volume and thickness, and the shelf its spill moulds', () => {
  const shape = { kind: 'box', lengthMm: 200, widthMm: 100, depthMm: 50 } as const
  const described = firstMouldDraft()
  described.volume = {
    ...described.volume,
    parts: [{ role: 'add', count: 1, method: { by: 'shape', shape } }],
  }
  const draft = { ...emptyDraft(TEST_SETTINGS), described }
  expect(planOf(draft, stock, NOW)!.mould).toMatchObject({ cavityMl: 1000, kind: 'silicone' })
  // 2 V / A of the block.
  expect(planOf(draft, stock, NOW)!.mould.thicknessMm).toBeCloseTo((2 * 1e6) / 70_000, 6)
  expect(spillOf(draft, stock).map((s) => s.name)).toEqual(['Limpet'])
  expect(spillOf({ ...draft, source: 'shelf', shelfId: 'm2' }, stock)).toEqual([])
  expect(spillOf({ ...draft, useSpill: false }, stock)).toEqual([])
})

it('keeps a mould as it was described', () => {
  expect(mouldInputOf(mouldDraftOf(moulds[0]!))).toEqual(
    mouldInputSchema
      .omit({ usualPlasterId: true })
      .loose()
      .parse(mouldInputOf(mouldDraftOf(moulds[0]!))),
  )
  const typed = { ...firstMouldDraft(), thicknessMm: 12, thicknessTyped: true }
  expect(thicknessOf(typed)).toBe(12)
  expect(thicknessOf({ ...typed, thicknessTyped: false })).not.toBe(12)
})

const everyMethod: VolumeMethod[] = [
  ...WAYS.map((w) => w.by)
    .filter((by) => by !== 'shape')
    .map((by) => SHOWN_WAYS[by].first),
  ...Object.values(FIRST_SHAPES).map((shape): VolumeMethod => ({ by: 'shape', shape })),
]

it.each(everyMethod.map((m) => [m.by === 'shape' ? m.shape.kind : m.by, m] as const))(
  '%s: starts with a volume, asks for what it has, and draws itself',
  (_, method) => {
    const result = findVolume(method)
    expect(result.issues).toEqual([])
    expect(result.ok).toBe(true)
    for (const field of shownWay(method).fields(method, (ml) => `${ml} ml`)) {
      const value = fieldValue(method, field.path)
      expect(value, field.path).toBeDefined()
      expect(fieldValue(withField(method, field.path, value), field.path)).toBe(value)
    }
    const { patches, dimensions, trueForm } = sectionOf(method, 1000)
    expect(patches.length).toBeGreaterThan(0)
    for (const [x, y] of patches.flatMap((p) => p.rings.flat())) expect(Number.isFinite(x + y)).toBe(true)
    expect(dimensions.length > 0).toBe(trueForm || dimensions.length > 0)
  },
)

it('a drawing follows its figures: twice the depth, twice as high', () => {
  const heightOf = (depthMm: number) => {
    const box: VolumeMethod = { by: 'shape', shape: { kind: 'box', lengthMm: 200, widthMm: 100, depthMm } }
    return Math.max(
      ...sectionOf(box, 0)
        .patches.at(-1)!
        .rings[0]!.map(([, y]) => y),
    )
  }
  expect(heightOf(80)).toBe(2 * heightOf(40))
})

it('pictures the way that knows the form', () => {
  const volume = { ...firstMouldDraft().volume, check: SHOWN_WAYS.water_fill.first }
  expect(pictured(volume).by).toBe('shape')
  const turned = {
    ...volume,
    parts: [{ ...volume.parts[0]!, method: SHOWN_WAYS.known.first }],
    check: SHOWN_WAYS.profile.first,
  }
  expect(pictured(turned).by).toBe('profile')
})

it('finds, filters and sorts the shelf', () => {
  const all: ShelfQuery = { text: '', material: 'all', show: 'all', order: 'name' }
  const names = (query: Partial<ShelfQuery>) => shelfOf(moulds, { ...all, ...query }).map((m) => m.name)
  expect(names({})).toEqual(['Limpet', 'Tile', 'Urchin'])
  expect(names({ order: 'volume' })).toEqual(['Tile', 'Urchin', 'Limpet'])
  expect(names({ order: 'casts' })[0]).toBe('Urchin')
  expect(names({ text: 'SEAM' })).toEqual(['Urchin'])
  expect(names({ show: 'spill' })).toEqual(['Limpet'])
  expect(names({ show: 'worn' })).toEqual(['Urchin'])
  expect(names({ material: 'latex' })).toEqual([])
})

it('edits a profile without leaving the axis or the last two points', () => {
  const { outer } = SHOWN_WAYS.profile.first
  expect(moveNode(outer, 1, -5, 3.4, 1)[1]).toEqual({ radiusMm: 0, heightMm: 3, smooth: false })
  expect(insertAfter(outer, 0)[1]).toMatchObject({ radiusMm: 20, heightMm: 0 })
  expect(removeNode(outer.slice(0, 2), 0)).toHaveLength(2)
  const hollow: VolumeMethod = { by: 'profile', outer, inner: innerFrom(outer, 8), fillHeightMm: null }
  expect(findVolume(hollow).ok).toBe(true)
})
