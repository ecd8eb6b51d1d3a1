import { expect, it } from 'vitest'
import {
  MOULD_MATERIALS,
  airTactics,
  checkThickness,
  letsGo,
  mouldKindOf,
  placeLeftover,
  preparationOf,
  releaseAdvice,
  usualFacts,
  wearOf,
  type CavityDescription,
  type MouldFacts,
} from '.'

// Facts of the trade: common practice, no source.

const filled: CavityDescription = {
  parts: [
    {
      role: 'add',
      count: 1,
      method: { by: 'water_fill', reading: 'measured', massG: 0, volumeMl: 500, waterTempC: 20 },
    },
  ],
  cavities: 1,
  check: null,
  trust: 'parts',
}
const facts = (change: Partial<MouldFacts>): MouldFacts => ({
  ...usualFacts(change.material ?? 'silicone'),
  ...change,
})
const codes = (of: MouldFacts, drawnMm?: number) => letsGo(of, drawnMm).map((l) => l.code)

it('releases by the pair: none on silicone, soap on plaster, nothing on clay, and modified cements grab', () => {
  expect(releaseAdvice('silicone', 'pop')).toEqual(['none_on_rubber'])
  expect(releaseAdvice('plaster', 'pottery')).toEqual(['soap_and_seal'])
  expect(releaseAdvice('wet_clay', 'pottery')).toEqual(['none_on_clay'])
  expect(releaseAdvice('rigid_plastic', 'hsgc')).toEqual(['thin_streak_free_film', 'modified_grabs'])
  for (const material of MOULD_MATERIALS) expect(releaseAdvice(material, undefined)).toHaveLength(1)
})

it('a rigid mould of one piece with an undercut cannot let go; rubber can, parts can, a waste mould is broken', () => {
  const undercut = { undercut: 'slight' } as const
  expect(letsGo(facts({ material: 'metal', ...undercut }), undefined)[0]).toEqual({
    code: 'rigid_undercut',
    grade: 'stop',
  })
  expect(codes(facts({ material: 'silicone', ...undercut }))).toEqual(['undercut_flexes'])
  expect(codes(facts({ material: 'silicone', undercut: 'deep' }))).toEqual(['deep_undercut_peels'])
  expect(codes(facts({ material: 'plaster', build: 'parts', ...undercut }))).toEqual(['undercut_in_parts'])
  expect(codes(facts({ material: 'plaster', oneTime: true, ...undercut }))).toEqual(['undercut_breaks_out'])
})

it('believes the drawing where the caster overlooked an undercut', () => {
  expect(codes(facts({ material: 'metal' }))).toEqual(['vacuum_grip'])
  expect(codes(facts({ material: 'metal' }), 3)).toContain('rigid_undercut')
  expect(codes(facts({ material: 'rigid_plastic' }))).toEqual(['springs_free'])
  expect(codes(facts({ material: 'silicone', build: 'cut_open' }))).toEqual(['cut_open_needs_keys'])
})

it('makes a preparation list for this mould, not a generic one', () => {
  const rubber = preparationOf(
    facts({ material: 'silicone', build: 'cut_open', support: 'mother_mould' }),
    filled,
  )
  expect(rubber).toEqual([
    'bench_ready',
    'wash_and_look',
    'drain_and_dry',
    'seat_in_jacket',
    'keys_and_tape',
    'clay_the_seams',
    'level_it',
  ])
  expect(preparationOf(facts({ material: 'alginate' }), filled)).toContain('same_day')
  expect(preparationOf(facts({ material: 'wood' }), filled)).toContain('seal_pores')
  expect(preparationOf(facts({ material: 'wood' }), filled)).toContain('bench_ready')
  expect(preparationOf(facts({ material: 'sand_soil' }), filled)).not.toContain('bench_ready')
  expect(preparationOf(facts({ material: 'silicone' }), filled)).not.toContain('release_film')
  expect(preparationOf(facts({ airTraps: ['flat_ceiling'] }), filled)).toContain('cut_vents')
})

it('says how to get the air out of forms like these, in the order of doing it', () => {
  const open = { build: 'one_piece' } as const
  expect(airTactics({ ...open, airTraps: ['deep_fingers', 'lettering', 'flat_ceiling'] })).toEqual([
    'brush_coat',
    'part_fill',
    'deepest_first',
    'tilt',
    'vent',
    'poke',
    'mist',
  ])
  expect(airTactics({ ...open, airTraps: [] })).toEqual([])
  // No brush gets into parts that are strapped together.
  expect(airTactics({ build: 'parts', airTraps: ['lettering'] })).toEqual(['part_fill', 'tilt', 'mist'])
})

it('checks thickness by purpose', () => {
  const code = (...of: Parameters<typeof checkThickness>) => checkThickness(...of)[0]?.code
  expect(code('print', 11)).toBe('print_too_thin')
  expect(code('print', 12)).toBeUndefined()
  expect(code('dental', 9)).toBe('dental_base_too_thin')
  expect(code('dental', 12)).toBe('dental_base_thinner_than_usual')
  expect(code('slab', 30)).toBe('slab_too_thin')
  expect(code('slab', 60)).toBe('slab_too_thick')
  expect(code('slab', 45)).toBeUndefined()
  expect(code('tile', 5)).toBe('plate_will_break')
  expect(code('prop', 3)).toBeUndefined()
})

it('warns of wear by count, by damage and by the caster’s own experience', () => {
  expect(wearOf('silicone', 5, 0, null).advice).toBe('fresh')
  expect(wearOf('silicone', 26, 0, null).advice).toBe('look_closely')
  expect(wearOf('silicone', 60, 0, null).advice).toBe('make_another')
  expect(wearOf('silicone', 5, 1, null).advice).toBe('make_another')
  expect(wearOf('silicone', 100, 0, null).advice).toBe('past_its_life')
  expect(wearOf('silicone', 60, 0, 200).advice).toBe('fresh')
})

it('places what is left in the largest spill mould it fills, then the next, and says what stays', () => {
  const spill = [
    { mouldId: 'a', name: 'Limpet', cavityMl: 28 },
    { mouldId: 'b', name: 'Cockle', cavityMl: 60 },
    { mouldId: 'c', name: 'Whelk', cavityMl: 300 },
  ]
  const plan = placeLeftover(100, spill)
  expect(plan.fills.map((f) => [f.name, f.fillMl])).toEqual([
    ['Cockle', 60],
    ['Limpet', 28],
  ])
  expect(plan.restMl).toBeCloseTo(12, 9)
  expect(placeLeftover(-5, spill)).toEqual({ leftMl: 0, fills: [], restMl: 0 })
})

it('knows what the plaster sets against', () => {
  const shell = { ...filled, parts: [{ role: 'add' as const, count: 1, method: { by: 'shell' } as never }] }
  expect(mouldKindOf(usualFacts('wet_clay'), shell)).toBe('shell')
  expect(mouldKindOf(usualFacts('polyurethane'), filled)).toBe('silicone')
  expect(mouldKindOf(facts({ material: 'plaster', oneTime: true }), filled)).toBe('waste_clay')
})
